import { useState } from 'react';
import { Button, Checkbox, Input, InputNumber, Select } from 'antd';
import { ArrowUp } from 'lucide-react';
import type { Advance, Change, Switcher } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { Seconds } from './Seconds.tsx';

const CHANGES: { value: Change['kind']; label: string }[] = [
  { value: 'cut', label: 'at once' },
  { value: 'fade', label: 'by fading' },
  { value: 'slide', label: 'by sliding' },
];
const DIRECTIONS: { value: Change['direction']; label: string }[] = [
  { value: 'left', label: 'to the left' },
  { value: 'right', label: 'to the right' },
  { value: 'up', label: 'upwards' },
  { value: 'down', label: 'downwards' },
];
const CONTROLS: [keyof Switcher['controls'], string][] = [
  ['arrows', 'Arrows'],
  ['dots', 'Dots'],
  ['thumbnails', 'Small pictures'],
  ['swipe', 'Swiping'],
  ['keys', 'Arrow keys'],
];

/** How a switcher goes from card to card: by itself or by hand, and in which way. */
export function SwitcherTurn({ spread, item }: { spread: string; item: Switcher }) {
  const edit = useDocument((s) => s.change);
  const turn = (more: Partial<Pick<Switcher, 'change' | 'controls'>> & { advance?: Advance | null }): void => {
    const { advance: before, ...still } = item;
    const { advance = before, ...rest } = more;
    edit([{ kind: 'part.set', args: { spread, item: { ...still, ...rest, ...(advance && { advance }) } } }], newBurst());
  };
  const { change, advance, controls } = item;
  const [typing] = useState(newBurst);
  const setCards = (cards: Switcher['cards'], burst = newBurst()): void =>
    edit([{ kind: 'part.set', args: { spread, item: { ...item, cards } } }], burst);
  const setCard = (at: number, more: { name?: string; seconds?: number | undefined }, burst?: string): void =>
    setCards(
      item.cards.map((c, i) => {
        if (i !== at) return c;
        const { seconds, ...rest } = { ...c, ...more };
        return seconds === undefined ? rest : { ...rest, seconds };
      }),
      burst,
    );
  const earlier = (at: number): void => {
    const cards = [...item.cards];
    cards.splice(at - 1, 0, ...cards.splice(at, 1));
    setCards(cards);
  };
  return (
    <div className="new-cue" role="group" aria-label="How it turns">
      <p className="soft">{item.cards.length} cards</p>
      <ol className="cards" aria-label="Cards">
        {item.cards.map((card, i) => (
          <li key={card.id}>
            <Input
              size="small"
              aria-label={`Name of card ${i + 1}`}
              value={card.name}
              onChange={(e) => setCard(i, { name: e.target.value }, typing)}
            />
            {advance && (
              <InputNumber
                size="small"
                aria-label={`Seconds of card ${i + 1}`}
                min={0.1}
                max={600}
                step={0.5}
                suffix="s"
                placeholder={String(advance.interval)}
                value={card.seconds ?? null}
                onChange={(v) => setCard(i, { seconds: v ?? undefined })}
              />
            )}
            <Button
              type="text"
              size="small"
              icon={<ArrowUp size={13} />}
              aria-label={`Card ${i + 1} earlier`}
              disabled={i === 0}
              onClick={() => earlier(i)}
            />
          </li>
        ))}
      </ol>
      <label>
        Cards change
        <Select
          aria-label="How cards change"
          value={change.kind}
          options={CHANGES}
          onChange={(kind) => turn({ change: { ...change, kind } })}
        />
      </label>
      {change.kind === 'slide' && (
        <Select
          aria-label="Which way they slide"
          value={change.direction}
          options={DIRECTIONS}
          onChange={(direction) => turn({ change: { ...change, direction } })}
        />
      )}
      {change.kind !== 'cut' && (
        <Seconds
          words="in"
          name="Seconds of a change"
          value={change.seconds}
          onChange={(v) => turn({ change: { ...change, seconds: v ?? 0.4 } })}
        />
      )}
      <Checkbox
        checked={!!advance}
        onChange={(e) =>
          turn({ advance: e.target.checked ? { interval: 6, end: 'loop', pauseOnPointer: true, pauseOnFocus: true } : null })
        }
      >
        Goes on by itself
      </Checkbox>
      {advance && (
        <>
          <Seconds
            words="Each card for"
            name="Seconds of a card"
            min={0.5}
            max={600}
            step={0.5}
            value={advance.interval}
            onChange={(v) => turn({ advance: { ...advance, interval: v ?? 6 } })}
          />
          <Checkbox
            checked={advance.end === 'loop'}
            onChange={(e) => turn({ advance: { ...advance, end: e.target.checked ? 'loop' : 'stop' } })}
          >
            Begins again after the last
          </Checkbox>
          <Checkbox checked={advance.pauseOnPointer} onChange={(e) => turn({ advance: { ...advance, pauseOnPointer: e.target.checked } })}>
            Rests while it is pointed at
          </Checkbox>
          <Checkbox checked={advance.pauseOnFocus} onChange={(e) => turn({ advance: { ...advance, pauseOnFocus: e.target.checked } })}>
            Rests while something in it is stepped to
          </Checkbox>
        </>
      )}
      <p className="soft">Readers turn it by</p>
      <div className="checks">
        {CONTROLS.map(([key, label]) => (
          <Checkbox key={key} checked={controls[key]} onChange={(e) => turn({ controls: { ...controls, [key]: e.target.checked } })}>
            {label}
          </Checkbox>
        ))}
      </div>
    </div>
  );
}
