import { useState } from 'react';
import { Button, Select } from 'antd';
import { Plus } from 'lucide-react';
import { isFormAddress, isSafeAddress } from '@elastic-folio/core';
import type { Cue, Item, Spread, TimedStep } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { newId } from './newId.ts';
import { Seconds } from './Seconds.tsx';
import { STEP_KINDS, targetsFor } from './stepChoices.ts';
import { StepFields } from './StepFields.tsx';

type When = Cue['trigger']['when'];

const WHEN: { value: When; label: string }[] = [
  { value: 'press', label: 'The reader presses it' },
  { value: 'pointerOver', label: 'The pointer comes over it' },
  { value: 'pointerOut', label: 'The pointer leaves it' },
  { value: 'focus', label: 'The reader steps to it' },
  { value: 'pageShown', label: 'The page is shown' },
  { value: 'pageLeft', label: 'The page is left' },
  { value: 'delay', label: 'The page has been shown for a while' },
  { value: 'fieldChanged', label: 'It is filled in' },
  { value: 'cardChanged', label: 'Its card changes' },
  { value: 'mediaEnded', label: 'It has ended' },
];
const OF_A_PAGE = new Set<When>(['pageShown', 'pageLeft', 'delay']);

/** Says what happens when something happens to an item or to a page; steps that are added are taken in order. */
export function NewCue({ spread, holder }: { spread: Spread; holder: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const own = spread.items[holder];
  const page = spread.pages.find((p) => p.id === holder);
  const possible = WHEN.filter(({ value }) => (page ? OF_A_PAGE.has(value) : fits(value, own)));
  const [when, setWhen] = useState<When>(possible[0]!.value);
  const [seconds, setSeconds] = useState(2);
  const [does, setDoes] = useState(() => (targetsFor(folio, spread, 'switcher').length ? 'next' : 'show'));
  const [set, setSet] = useState<TimedStep | null>(null);
  const kind = STEP_KINDS.find((k) => k.value === does)!;
  const targets = targetsFor(folio, spread, kind.about);
  const step = set ?? kind.begin(targets[0]?.value ?? '');
  const known = Object.values((page ?? own)?.cues ?? {}).find(
    ({ trigger: t }) => t.when === when && (t.when !== 'delay' || t.seconds === seconds),
  );
  const add = (): void => {
    const trigger: Cue['trigger'] = when === 'delay' ? { when, seconds } : { when };
    const cue = known ? { ...known, steps: [...known.steps, step] } : { id: newId('cue'), trigger, steps: [step] };
    change([{ kind: 'cue.set', args: { spread: spread.id, holder, cue } }], newBurst());
    setSet(null);
  };
  return (
    <div className="new-cue" role="group" aria-label="A new cue">
      <label>
        When
        <Select aria-label="When" value={when} onChange={setWhen} options={possible} />
      </label>
      {when === 'delay' && (
        <Seconds words="for" name="Seconds after the page is shown" max={600} value={seconds} onChange={(v) => setSeconds(v ?? 0)} />
      )}
      <label>
        this happens
        <Select
          aria-label="What happens"
          showSearch={{ optionFilterProp: 'label' }}
          value={does}
          onChange={(value) => {
            setDoes(value);
            setSet(null);
          }}
          options={STEP_KINDS.map(({ value, label }) => ({ value, label }))}
        />
      </label>
      <StepFields step={step} targets={targets} onChange={setSet} />
      <Button icon={<Plus size={14} />} disabled={!isWhole(step)} onClick={add}>
        {known ? 'Add this step' : 'Add this cue'}
      </Button>
    </div>
  );
}

/** Some things happen only to items of a kind. */
function fits(when: When, item: Item | undefined): boolean {
  if (when === 'fieldChanged') return item?.kind === 'field';
  if (when === 'cardChanged') return item?.kind === 'switcher';
  return when === 'mediaEnded' ? item?.kind === 'media' : true;
}

/** Whether a step says all that it needs; an address must be one that may be opened. */
function isWhole(step: TimedStep): boolean {
  switch (step.do) {
    case 'showCard':
      return step.switcher !== '';
    case 'show':
    case 'hide':
    case 'toggle':
    case 'animate':
      return step.items.length > 0 && !step.items.includes('');
    case 'play':
    case 'pause':
    case 'stop':
    case 'seek':
    case 'openFile':
      return step.media !== '';
    case 'sendForm':
      return isFormAddress(step.href);
    case 'go':
      return step.destination.to !== 'address' || (step.destination.href.trim() !== '' && isSafeAddress(step.destination.href));
    default:
      return true;
  }
}
