import { itemBounds, union } from '@elastic-folio/core';
import type { Grid, Spread } from '@elastic-folio/core';

/** Where the copies of a grid would stand, numbered as they count on, before they are there. */
export function GridPreview({ spread, grid, scale }: { spread: Spread; grid: Grid; scale: number }) {
  const seeds = grid.seeds.flatMap((id) => (spread.items[id] ? [itemBounds(spread.items, spread.items[id])] : []));
  if (!seeds.length) return null;
  const px = 1 / scale;
  const box = union(seeds);
  return (
    <g className="grid-preview" aria-hidden>
      {Array.from({ length: grid.rows * grid.columns }, (_, i) => {
        const [row, column] = [Math.floor(i / grid.columns), i % grid.columns];
        const [x, y] = [box.x + column * grid.dx, box.y + row * grid.dy];
        return (
          <g key={i}>
            <rect x={x} y={y} width={box.width} height={box.height} strokeWidth={1.5 * px} />
            <text x={x + 3 * px} y={y + 11 * px} fontSize={11 * px} strokeWidth={3 * px}>
              {i + 1}
            </text>
          </g>
        );
      })}
    </g>
  );
}
