import { useState } from 'react';
import { Button, Input, Select } from 'antd';
import { Plus } from 'lucide-react';
import { itemsById, pagesOf } from '@elastic-folio/core';
import type { Cue, Edit, Folio, Item, Spread } from '@elastic-folio/core';
import { newBurst, useDocument } from '../document/documentStore.ts';
import { Seconds } from './Seconds.tsx';
import { itemName } from '../table/SpreadView.tsx';

type Step = Extract<Edit, { kind: 'cue.set' }>['args']['cue']['steps'][number];
type When = Exclude<Cue['trigger']['when'], 'delay'>;

const WHEN: { value: When; label: string }[] = [
  { value: 'press', label: 'The reader presses it' },
  { value: 'pointerOver', label: 'The pointer comes over it' },
  { value: 'pointerOut', label: 'The pointer leaves it' },
  { value: 'focus', label: 'The reader steps to it' },
  { value: 'pageShown', label: 'The page is shown' },
  { value: 'pageLeft', label: 'The page is left' },
  { value: 'fieldChanged', label: 'It is filled in' },
  { value: 'cardChanged', label: 'Its card changes' },
  { value: 'mediaEnded', label: 'It has ended' },
];

/** What can happen, and what it happens to. */
const DOES: { value: string; label: string; on: 'switcher' | 'items' | 'media' | 'page' | 'address' | null }[] = [
  { value: 'next', label: 'Show the next card', on: 'switcher' },
  { value: 'previous', label: 'Show the previous card', on: 'switcher' },
  { value: 'show', label: 'Show', on: 'items' },
  { value: 'hide', label: 'Hide', on: 'items' },
  { value: 'toggle', label: 'Show or hide', on: 'items' },
  { value: 'fade', label: 'Fade in', on: 'items' },
  { value: 'moveIn', label: 'Move in', on: 'items' },
  { value: 'page', label: 'Go to a page', on: 'page' },
  { value: 'back', label: 'Go back', on: null },
  { value: 'link', label: 'Open an address', on: 'address' },
  { value: 'play', label: 'Play', on: 'media' },
  { value: 'pause', label: 'Pause', on: 'media' },
  { value: 'print', label: 'Print', on: null },
  { value: 'reset', label: 'Empty the form', on: null },
];

/** Says what happens when something happens to an item; steps that are added are taken in order. */
export function NewCue({ spread, holder }: { spread: Spread; holder: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const own = spread.items[holder];
  const [when, setWhen] = useState<When>('press');
  const [does, setDoes] = useState(() => (targetsFor(folio, spread, 'switcher').length ? 'next' : 'show'));
  const [target, setTarget] = useState<string | undefined>();
  const [after, setAfter] = useState(0);
  const { on } = DOES.find((d) => d.value === does)!;
  const targets = targetsFor(folio, spread, on);
  const chosen = on === 'address' ? target : targets.some((t) => t.value === target) ? target : targets[0]?.value;
  const step = on !== null && !chosen ? null : stepOf(does, chosen ?? '', after);
  const possible = WHEN.filter(({ value }) => fits(value, own));
  const known = Object.values(own?.cues ?? {}).find((c) => c.trigger.when === when);
  const add = (): void => {
    if (!step) return;
    const cue = known
      ? { ...known, steps: [...known.steps, step] }
      : { id: `cue-${crypto.randomUUID().slice(0, 8)}`, trigger: { when }, steps: [step] };
    change([{ kind: 'cue.set', args: { spread: spread.id, holder, cue } }], newBurst());
  };
  return (
    <div className="new-cue" role="group" aria-label="A new cue">
      <label>
        When
        <Select aria-label="When" value={when} onChange={setWhen} options={possible} />
      </label>
      <label>
        this happens
        <Select
          aria-label="What happens"
          showSearch={{ optionFilterProp: 'label' }}
          value={does}
          onChange={setDoes}
          options={DOES.map(({ value, label }) => ({ value, label }))}
        />
      </label>
      {on === 'address' ? (
        <Input aria-label="Address" placeholder="https://" value={target ?? ''} onChange={(e) => setTarget(e.target.value)} />
      ) : (
        on !== null && (
          <Select
            aria-label="To what"
            showSearch={{ optionFilterProp: 'label' }}
            value={chosen ?? null}
            onChange={(v) => setTarget(v ?? undefined)}
            options={targets}
            notFoundContent={on === 'switcher' ? 'This spread has no switcher.' : 'There is nothing that it could be about.'}
          />
        )
      )}
      <Seconds words="after" name="After seconds" max={600} step={0.5} value={after} onChange={(v) => setAfter(v ?? 0)} />
      <Button icon={<Plus size={14} />} disabled={!step} onClick={add}>
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

function targetsFor(folio: Folio, spread: Spread, on: (typeof DOES)[number]['on']): { value: string; label: string }[] {
  if (on === 'page') return pagesOf(folio).map(({ page, number }) => ({ value: page.id, label: `Page ${number}` }));
  if (on === null || on === 'address') return [];
  const near = Object.values(spread.items);
  const items = on === 'items' ? near : [...new Set([...near, ...itemsById(folio).values()])].filter((i) => i.kind === on);
  return items.map((i) => ({ value: i.id, label: itemName(folio, i) }));
}

function stepOf(does: string, target: string, after: number): Step | null {
  switch (does) {
    case 'next':
    case 'previous':
      return { do: 'showCard', switcher: target, card: does, after };
    case 'show':
    case 'hide':
    case 'toggle':
      return { do: does, items: [target], after };
    case 'fade':
    case 'moveIn':
      return { do: 'animate', items: [target], kind: does, seconds: 0.6, after };
    case 'page':
      return { do: 'go', destination: { to: 'page', page: target }, after };
    case 'back':
      return { do: 'go', destination: { to: 'back' }, after };
    case 'link':
      return target.trim() ? { do: 'go', destination: { to: 'address', href: target.trim() }, after } : null;
    case 'play':
    case 'pause':
      return { do: does, media: target, after };
    case 'print':
      return { do: 'print', after };
    default:
      return { do: 'resetForm', after };
  }
}
