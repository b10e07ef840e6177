import { useMemo } from 'react';
import { Button, InputNumber, Select } from 'antd';
import { paragraphsOf, pagesOf, readText, storyOfFrame } from '@elastic-folio/core';
import type { Folio, Paragraph, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { PinOffer } from './PinOffer.tsx';
import { PinPlace } from './PinPlace.tsx';

type Pin = Folio['head']['structure']['pins'][string];

const PLACES: { value: Pin['as']; label: string }[] = [
  { value: 'before', label: 'Before it' },
  { value: 'after', label: 'After it' },
  { value: 'inline', label: 'In its line' },
  { value: 'float', label: 'Beside it, text running round' },
];

/** Where a free-standing thing is read in running text: at a paragraph, wherever it stands on the page. */
export function PinControl({ spread, item }: { spread: Spread; item: string }) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const pin = Object.values(folio.head.structure.pins).find((p) => p.item === item);
  const suggested = useDocument((s) => s.suggestedPins).find((p) => p.item === item);
  const at = useMemo(() => (pin ? paragraphById(folio, pin.paragraph) : undefined), [folio, pin]);
  const options = paragraphsNear(folio, spread, item);
  const set = (changes: Partial<Pin>): void => {
    const made: Pin = { id: pin?.id ?? `pin-${item}`, item, paragraph: pin?.paragraph ?? '', offset: 0, as: 'after', ...pin, ...changes };
    change([{ kind: 'pin.set', args: made }], newBurst());
  };
  return (
    <div className="pin">
      <h2>Pinned to words</h2>
      <p className="soft">
        In an e-book or article it is read at this paragraph; on the page it stays where it is. Drag its pin onto a text, or choose.
      </p>
      <Select
        aria-label="Paragraph"
        showSearch={{ optionFilterProp: 'label' }}
        placeholder="Not pinned: read by its place in the path"
        value={pin?.paragraph}
        options={options}
        onChange={(paragraph: string) => set({ paragraph, offset: 0 })}
      />
      {!pin && suggested && <PinOffer suggestion={suggested} />}
      {pin && (
        <div className="pin-how">
          <Select aria-label="How it stands there" size="small" value={pin.as} options={PLACES} onChange={(as) => set({ as })} />
          <InputNumber
            aria-label="Width"
            size="small"
            min={5}
            max={100}
            step={5}
            suffix="%"
            placeholder="as laid"
            value={pin.width === undefined ? null : Math.round(pin.width * 100)}
            onChange={(width) => width !== null && set({ width: width / 100 })}
          />
          <Button size="small" onClick={() => change([{ kind: 'pin.remove', args: { pin: pin.id } }], newBurst())}>
            Take the pin out
          </Button>
        </div>
      )}
      {pin?.as === 'inline' && at && (
        <PinPlace key={`${pin.paragraph} ${pin.offset}`} paragraph={at} offset={pin.offset} onOffset={(offset) => set({ offset })} />
      )}
    </div>
  );
}

function paragraphById(folio: Folio, id: string): Paragraph | undefined {
  const block = Object.values(folio.stories).find((s) => s.blocks[id])?.blocks[id];
  return block?.kind === 'paragraph' ? block : undefined;
}

/** Paragraphs that a thing may be pinned to: those of its own spread first, then all others; none of its own text. */
function paragraphsNear(folio: Folio, spread: Spread, item: string): { label: string; options: { value: string; label: string }[] }[] {
  const own = storyOfFrame(folio).get(item);
  const here = new Set(folio.head.storyOrder.filter((id) => folio.stories[id]?.frames.some((f) => f.spread === spread.id)));
  const known = new Set(pagesOf(folio).map((p) => p.spread.id));
  const list = (ids: readonly string[]): { value: string; label: string }[] =>
    ids.flatMap((id) =>
      [...paragraphsOf(folio.stories[id]!)].flatMap((p) => {
        const text = readText(p).trim();
        return text ? [{ value: p.id, label: text.length > 70 ? `${text.slice(0, 68)}…` : text }] : [];
      }),
    );
  const others = folio.head.storyOrder.filter(
    (id) => id !== own && !here.has(id) && folio.stories[id]?.frames.some((f) => known.has(f.spread)),
  );
  return [
    { label: 'On this spread', options: list([...here].filter((id) => id !== own)) },
    { label: 'Elsewhere', options: list(others) },
  ].filter((g) => g.options.length);
}
