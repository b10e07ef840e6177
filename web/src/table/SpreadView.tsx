import { memo } from 'react';
import type { ReactNode } from 'react';
import { itemBounds, paintOrder, readText, storyOfFrame, union } from '@elastic-folio/core';
import type { Folio, Head, Item, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { ItemMarkup } from './ItemMarkup.tsx';

/** Chooses an item; `add`: together with what is chosen already. */
export type Select = (item: string | null, add?: boolean) => void;

/** Whether something is to be chosen together with what is chosen already. */
export const isAdding = (e: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): boolean => e.shiftKey || e.ctrlKey || e.metaKey;

const NOTHING: readonly string[] = [];

interface Props {
  head: Head;
  spread: Spread;
  scale: number;
  selected: string | null;
  /** What is chosen together with it. */
  also?: readonly string[] | undefined;
  onSelect: Select;
  /** What a stage draws over the pages, in spread coordinates. */
  over?: ReactNode;
}

/** Items that can be pointed at, members of groups included, back to front. */
function reachable(head: Head, spread: Spread): Item[] {
  const out: Item[] = [];
  const visit = (item: Item): void => {
    if (head.layers[item.layer]?.visible === false) return;
    out.push(item);
    if (item.kind === 'group') for (const id of item.members) if (spread.items[id]) visit(spread.items[id]);
  };
  for (const item of paintOrder({ head }, spread)) visit(item);
  return out;
}

export const spreadBox = (spread: Spread) => union(spread.pages.map((p) => p.box));

const KINDS: Record<Item['kind'], string> = {
  textFrame: 'Text',
  picture: 'Picture',
  shape: 'Shape',
  group: 'Group',
  tableFrame: 'Table',
  media: 'Sound or film',
  switcher: 'Switcher',
  veil: 'Veil',
  embed: 'Embed',
  field: 'Field',
};

/** What a person would call an item: its own name, its picture's, or how its text begins. */
export function itemName(folio: Folio, item: Item): string {
  if (item.name) return item.name;
  if (item.kind === 'field' && item.label) return `${KINDS.field} “${item.label}”`;
  const picture = item.kind === 'picture' && item.media !== null ? folio.head.media[item.media]?.name : undefined;
  const story = folio.stories[storyOfFrame(folio).get(item.id) ?? ''];
  const text = story?.order
    .map((id) => (story.blocks[id]?.kind === 'paragraph' ? readText(story.blocks[id], () => '#') : ''))
    .join(' ')
    .replace(/^[\s“”„"‘’]+/, '')
    .trim();
  const called = picture ?? (text && text.length > 28 ? `${text.slice(0, 26).trim()}…` : text);
  return called ? `${KINDS[item.kind]} “${called}”` : KINDS[item.kind];
}

/** A spread as the typesetter painted it, with outlines to point at; drawn again only when something of it changed. */
export const SpreadView = memo(
  function SpreadView({ head, spread, scale, selected, also = NOTHING, onSelect, over }: Props) {
    const box = spreadBox(spread);
    const chosen = [...(selected ? [selected] : NOTHING), ...also].flatMap((id) => spread.items[id] ?? []);
    return (
      <svg
        className="spread"
        width={box.width * scale}
        height={box.height * scale}
        viewBox={`${box.x} ${box.y} ${box.width} ${box.height}`}
        onPointerDown={(e) => e.target === e.currentTarget && onSelect(null)}
      >
        <clipPath id={`clip-${spread.id}`}>
          <rect x={box.x} y={box.y} width={box.width} height={box.height} />
        </clipPath>
        <Painted spread={spread} />
        {spread.pages.slice(1).map((p) => (
          <path key={p.id} d={`M${p.box.x} ${p.box.y}v${p.box.height}`} stroke="#22302c" strokeOpacity=".16" strokeWidth={1 / scale} />
        ))}
        <g className="reach">
          {reachable(head, spread).map((item) => {
            const b = item.kind === 'group' ? itemBounds(spread.items, item) : null;
            if (b) return null;
            const inner =
              item.kind === 'shape'
                ? itemBounds({}, { ...item, transform: [1, 0, 0, 1, 0, 0] })
                : { x: 0, y: 0, ...(item as { size: { width: number; height: number } }).size };
            const pad = Math.max(0, 3 - Math.min(inner.width, inner.height) / 2);
            return (
              <rect
                key={item.id}
                data-reach={item.id}
                transform={`matrix(${item.transform.join(' ')})`}
                x={inner.x - pad}
                y={inner.y - pad}
                width={inner.width + 2 * pad}
                height={inner.height + 2 * pad}
                onPointerDown={(e) => onSelect(item.id, isAdding(e))}
              />
            );
          })}
        </g>
        {over}
        {chosen.map((item) => (
          <Outline key={item.id} spread={spread} item={item} scale={scale} />
        ))}
      </svg>
    );
  },
  (a, b) =>
    a.head === b.head &&
    a.spread === b.spread &&
    a.scale === b.scale &&
    a.selected === b.selected &&
    a.also === b.also &&
    a.over === b.over &&
    a.onSelect === b.onSelect,
);

/** The pages as they were last painted; white until then. */
function Painted({ spread }: { spread: Spread }) {
  const painted = useDocument((s) => s.painted[spread.id]);
  if (!painted)
    return (
      <>
        {spread.pages.map((p) => (
          <rect key={p.id} x={p.box.x} y={p.box.y} width={p.box.width} height={p.box.height} fill="#fff" />
        ))}
      </>
    );
  return (
    <g clipPath={`url(#clip-${spread.id})`}>
      <ItemMarkup svg={painted.paper} lines={undefined} />
      {painted.items.map((i) => (
        <ItemMarkup key={i.item} svg={i.svg} lines={i.lines} />
      ))}
    </g>
  );
}

function Outline({ spread, item, scale }: { spread: Spread; item: Item; scale: number }) {
  const own = 'size' in item;
  const box = own ? { x: 0, y: 0, ...item.size } : itemBounds(spread.items, item);
  return (
    <rect
      className="chosen"
      {...(own && { transform: `matrix(${item.transform.join(' ')})` })}
      x={box.x}
      y={box.y}
      width={box.width}
      height={box.height}
      strokeWidth={2 / scale}
    />
  );
}
