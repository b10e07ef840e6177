import type { Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';

/** Texts that fill their frame by so much more are told (own choice). */
const GREW = 0.08;

/** The growth of texts as tint over their frames: grown, or longer than the frame; with the growth in percent. */
export function GrowthTint({ spread, scale }: { spread: Spread; scale: number }) {
  const fill = useDocument((s) => s.fill);
  return (
    <g className="growth" aria-hidden>
      {Object.values(spread.items).map((item) => {
        const f = fill[item.id];
        if (item.kind !== 'textFrame' || !f || (!f.before && !f.after)) return null;
        const over = f.after > 1.005;
        const grew = f.after - f.before;
        if (!over && Math.abs(grew) < GREW) return null;
        const percent = f.before > 0 ? Math.round((f.after / f.before - 1) * 100) : 100;
        return (
          <g key={item.id} transform={`matrix(${item.transform.join(' ')})`} className={over ? 'over' : grew > 0 ? 'grown' : 'shrunk'}>
            <rect width={item.size.width} height={item.size.height} />
            <text x={item.size.width} y={-3 / scale} textAnchor="end" fontSize={11 / scale}>
              {percent > 0 ? `+${percent}` : percent} %
            </text>
          </g>
        );
      })}
    </g>
  );
}
