import { Checkbox, Input, InputNumber, Select } from 'antd';
import { itemsById } from '@elastic-folio/core';
import type { TimedStep } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { Seconds } from './Seconds.tsx';
import type { Choice } from './stepChoices.ts';

interface Props {
  step: TimedStep;
  /** What the step could be about. */
  targets: Choice[];
  onChange: (step: TimedStep) => void;
}

const EASINGS = [
  { value: 'ease', label: 'gently' },
  { value: 'linear', label: 'evenly' },
  { value: 'easeIn', label: 'slowly at first' },
  { value: 'easeOut', label: 'slowly at last' },
] as const;
const SIDES = [
  { value: 'left', label: 'from the left' },
  { value: 'right', label: 'from the right' },
  { value: 'above', label: 'from above' },
  { value: 'below', label: 'from below' },
] as const;

/** The settings of one step of a cue, by what it does. */
export function StepFields({ step, targets, onChange }: Props) {
  return (
    <>
      <Target step={step} targets={targets} onChange={onChange} />
      <Manner step={step} onChange={onChange} />
      <Seconds
        words="after"
        name="After seconds"
        max={600}
        step={0.5}
        value={step.after}
        onChange={(v) => onChange({ ...step, after: v ?? 0 })}
      />
    </>
  );
}

function Target({ step, targets, onChange }: Props) {
  const found = { showSearch: { optionFilterProp: 'label' }, options: targets, 'aria-label': 'To what' };
  switch (step.do) {
    case 'showCard':
      return (
        <Select
          {...found}
          value={step.switcher || null}
          notFoundContent="This spread has no switcher."
          onChange={(v) => v !== null && onChange({ ...step, switcher: v, card: isWay(step.card) ? step.card : 'next' })}
        />
      );
    case 'show':
    case 'hide':
    case 'toggle':
    case 'animate':
      return <Select {...found} mode="multiple" value={step.items} onChange={(items) => onChange({ ...step, items })} />;
    case 'play':
    case 'pause':
    case 'stop':
    case 'seek':
    case 'openFile':
      return (
        <Select
          {...found}
          value={step.media || null}
          notFoundContent="There is nothing that it could be about."
          onChange={(v) => v !== null && onChange({ ...step, media: v })}
        />
      );
    case 'sendForm':
      return (
        <Input
          aria-label="Address"
          placeholder="https:// or mailto:"
          value={step.href}
          onChange={(e) => onChange({ ...step, href: e.target.value })}
        />
      );
    case 'go': {
      const { destination } = step;
      if (destination.to === 'page')
        return <Select {...found} value={destination.page} onChange={(page) => onChange({ ...step, destination: { to: 'page', page } })} />;
      if (destination.to !== 'address') return null;
      return (
        <>
          <Input
            aria-label="Address"
            placeholder="https://"
            value={destination.href}
            onChange={(e) => onChange({ ...step, destination: { ...destination, href: e.target.value } })}
          />
          <Checkbox
            checked={destination.window === 'new'}
            onChange={(e) => onChange({ ...step, destination: { ...destination, window: e.target.checked ? 'new' : 'same' } })}
          >
            In a new window
          </Checkbox>
        </>
      );
    }
    default:
      return null;
  }
}

const isWay = (card: string): boolean => card === 'next' || card === 'previous';

function Manner({ step, onChange }: Pick<Props, 'step' | 'onChange'>) {
  const folio = useDocument((s) => s.folio)!;
  switch (step.do) {
    case 'showCard': {
      const switcher = itemsById(folio).get(step.switcher);
      const cards = switcher?.kind === 'switcher' ? switcher.cards : [];
      return (
        <>
          <label>
            which is
            <Select
              aria-label="Which card"
              value={step.card}
              onChange={(card) => onChange({ ...step, card })}
              options={[
                { value: 'next', label: 'the next one' },
                { value: 'previous', label: 'the previous one' },
                ...cards.map((c) => ({ value: c.id, label: `“${c.name}”` })),
              ]}
            />
          </label>
          {isWay(step.card) && (
            <Checkbox
              checked={step.afterLast === 'again'}
              onChange={(e) => onChange({ ...step, afterLast: e.target.checked ? 'again' : 'stop' })}
            >
              Begin again after the last
            </Checkbox>
          )}
        </>
      );
    }
    case 'seek':
      return (
        <label>
          to its second
          <InputNumber
            aria-label="Second of the film or sound"
            min={0}
            value={step.seconds}
            onChange={(v) => onChange({ ...step, seconds: v ?? 0 })}
          />
        </label>
      );
    case 'animate':
      return (
        <>
          {step.kind === 'moveIn' && (
            <Select aria-label="From where" value={step.from} options={[...SIDES]} onChange={(from) => onChange({ ...step, from })} />
          )}
          <Seconds
            words="in"
            name="Seconds of the animation"
            max={60}
            value={step.seconds}
            onChange={(v) => onChange({ ...step, seconds: v ?? 0.6 })}
          />
          <Select
            aria-label="In which way"
            value={step.easing}
            options={[...EASINGS]}
            onChange={(easing) => onChange({ ...step, easing })}
          />
          <Checkbox checked={step.repeat === 'again'} onChange={(e) => onChange({ ...step, repeat: e.target.checked ? 'again' : 'once' })}>
            Again and again
          </Checkbox>
        </>
      );
    default:
      return null;
  }
}
