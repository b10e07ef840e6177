import { useDraggable, useDroppable } from '@dnd-kit/core';
import { itemBounds, pageOfItem, pathOf } from '@elastic-folio/core';
import type { Folio, ParagraphPlace, Spread } from '@elastic-folio/core';
import type { Dragged } from './pathDrag.ts';

interface Props {
  folio: Folio;
  spread: Spread;
  places: readonly ParagraphPlace[];
  scale: number;
  selected: string | null;
  /** What is being dragged: then there are places to drop it on. */
  dragged: Dragged | null;
}

/**
 * The reading path as a rule: a line along the left edge of everything that is read, a tick and a number where each begins. A
 * number is dragged onto what it shall be read in the place of; the pin of what is chosen, onto the paragraph it shall be read at.
 */
export function PathRule({ folio, spread, places, scale, selected, dragged }: Props) {
  const px = 1 / scale;
  const stops = pathOf(folio, spread).map((item) => {
    const b = itemBounds(spread.items, item);
    // What fills a page has its tick inside it.
    const page = pageOfItem(spread, item).box;
    const [top, bottom] = [Math.max(b.y, page.y), Math.min(b.y + b.height, page.y + page.height)];
    return { item: item.id, x: Math.max(b.x - 7 * px, page.x + 18 * px), y: top, bottom: Math.max(bottom, top), box: b };
  });
  const along = stops.map((s) => `M${s.x} ${s.y}V${s.bottom}`).join('');
  const between = stops
    .slice(1)
    .map((s, i) => `M${stops[i]!.x} ${stops[i]!.bottom}V${(stops[i]!.bottom + s.y) / 2}H${s.x}V${s.y}`)
    .join('');
  const pinned = Object.values(folio.head.structure.pins).flatMap((pin) => {
    const place = places.find((p) => p.paragraph === pin.paragraph);
    const item = spread.items[pin.item];
    return place && item ? [{ id: pin.id, from: itemBounds(spread.items, item), to: place.box }] : [];
  });
  const chosen = selected === null ? undefined : spread.items[selected];
  const mayPin = chosen && chosen.kind !== 'group' && stops.some((s) => s.item === chosen.id);
  return (
    <g className="path-rule" aria-hidden>
      <path d={between} strokeWidth={1.5 * px} strokeDasharray={`${2 * px} ${3 * px}`} />
      <path d={along} strokeWidth={2 * px} />
      {pinned.map(({ id, from, to }) => (
        <path
          key={id}
          className="pin-thread"
          d={`M${from.x + from.width / 2} ${from.y + from.height / 2}L${to.x} ${to.y + to.height / 2}`}
          strokeWidth={1.5 * px}
        />
      ))}
      {dragged?.what === 'stop' &&
        dragged.spread === spread.id &&
        stops.map((s) => <DropPlace key={s.item} id={`item:${s.item}`} data={{ to: 'item', item: s.item }} box={s.box} px={px} />)}
      {dragged?.what === 'pin' &&
        places
          .filter((p) => p.frame !== dragged.item)
          .map((p) => (
            <DropPlace
              key={`${p.frame}/${p.paragraph}`}
              id={`paragraph:${p.frame}/${p.paragraph}`}
              data={{ to: 'paragraph', paragraph: p.paragraph }}
              box={p.box}
              px={px}
            />
          ))}
      {stops.map((s, i) => (
        <StopHandle key={s.item} spread={spread.id} item={s.item} chosen={s.item === selected}>
          <rect x={s.x - 3 * px} y={s.y} width={6 * px} height={14 * px} />
          <text x={s.x - 6 * px} y={s.y + 11 * px} fontSize={11 * px} textAnchor="end" strokeWidth={3 * px}>
            {i + 1}
          </text>
          <rect className="grip" x={s.x - 22 * px} y={s.y - 3 * px} width={28 * px} height={20 * px} />
        </StopHandle>
      ))}
      {mayPin && <PinHandle spread={spread.id} item={chosen.id} box={itemBounds(spread.items, chosen)} px={px} />}
    </g>
  );
}

function StopHandle({ spread, item, chosen, children }: { spread: string; item: string; chosen: boolean; children: React.ReactNode }) {
  const data: Dragged = { what: 'stop', spread, item };
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `stop:${spread}/${item}`, data });
  return (
    <g
      ref={(g) => setNodeRef(g as unknown as HTMLElement)}
      {...listeners}
      data-stop={item}
      className={[chosen && 'chosen-stop', isDragging && 'dragged'].filter(Boolean).join(' ') || undefined}
    >
      {children}
    </g>
  );
}

function PinHandle({ spread, item, box, px }: { spread: string; item: string; box: { x: number; y: number; width: number }; px: number }) {
  const data: Dragged = { what: 'pin', spread, item };
  const { setNodeRef, listeners, isDragging } = useDraggable({ id: `pin:${spread}/${item}`, data });
  const [x, y] = [box.x + box.width, box.y];
  return (
    <g
      ref={(g) => setNodeRef(g as unknown as HTMLElement)}
      {...listeners}
      data-pin={item}
      className={isDragging ? 'pin-handle dragged' : 'pin-handle'}
    >
      <title>Drag onto a paragraph: it is read there</title>
      <circle cx={x} cy={y} r={10 * px} />
      <path d={`M${x - 3 * px} ${y - 4 * px}h${6 * px}M${x} ${y - 4 * px}v${9 * px}`} strokeWidth={2 * px} />
    </g>
  );
}

function DropPlace({
  id,
  data,
  box,
  px,
}: {
  id: string;
  data: object;
  box: { x: number; y: number; width: number; height: number };
  px: number;
}) {
  const { setNodeRef, isOver } = useDroppable({ id, data });
  return (
    <rect
      ref={(r) => setNodeRef(r as unknown as HTMLElement)}
      className={isOver ? 'drop-place over' : 'drop-place'}
      strokeWidth={2 * px}
      {...box}
      height={Math.max(box.height, 4 * px)}
    />
  );
}
