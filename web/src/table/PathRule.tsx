import { itemBounds, pageOfItem, pathOf } from '@elastic-folio/core';
import type { Folio, Spread } from '@elastic-folio/core';

/** The reading path as a rule: a line along the left edge of everything that is read, a tick and a number where each begins. */
export function PathRule({ folio, spread, scale, selected }: { folio: Folio; spread: Spread; scale: number; selected: string | null }) {
  const px = 1 / scale;
  const stops = pathOf(folio, spread).map((item) => {
    const b = itemBounds(spread.items, item);
    // What fills a page has its tick inside it.
    const page = pageOfItem(spread, item).box;
    const [top, bottom] = [Math.max(b.y, page.y), Math.min(b.y + b.height, page.y + page.height)];
    return { item: item.id, x: Math.max(b.x - 7 * px, page.x + 18 * px), y: top, bottom: Math.max(bottom, top) };
  });
  const along = stops.map((s) => `M${s.x} ${s.y}V${s.bottom}`).join('');
  const between = stops
    .slice(1)
    .map((s, i) => `M${stops[i]!.x} ${stops[i]!.bottom}V${(stops[i]!.bottom + s.y) / 2}H${s.x}V${s.y}`)
    .join('');
  return (
    <g className="path-rule" aria-hidden>
      <path d={between} strokeWidth={1.5 * px} strokeDasharray={`${2 * px} ${3 * px}`} />
      <path d={along} strokeWidth={2 * px} />
      {stops.map((s, i) => (
        <g key={s.item} className={s.item === selected ? 'chosen-stop' : undefined}>
          <rect x={s.x - 3 * px} y={s.y} width={6 * px} height={14 * px} />
          <text x={s.x - 6 * px} y={s.y + 11 * px} fontSize={11 * px} textAnchor="end" strokeWidth={3 * px}>
            {i + 1}
          </text>
        </g>
      ))}
    </g>
  );
}
