import { useEffect, useMemo, useState } from 'react';
import { Button, Checkbox, InputNumber } from 'antd';
import { Grid3x3 } from 'lucide-react';
import { itemBounds, mm, overlap, toMm, union } from '@elastic-folio/core';
import type { Grid, Item, Spread } from '@elastic-folio/core';
import { useDocument } from '../document/documentStore.ts';
import { newBurst } from '../document/identity.ts';
import { itemName } from '../table/SpreadView.tsx';

interface Props {
  spread: Spread;
  /** What is repeated; what stands near may go with it. */
  items: readonly Item[];
  onPreview: (grid: Grid | null) => void;
}

/** What stands no further than this from an item, in points, may be repeated with it: its box, its label. */
const NEAR = 14;

/** Repeats items, with what belongs to them, in rows and columns; the spacing of a grid is changed as one. */
export function GridRepeat({ spread, items, onPreview }: Props) {
  const folio = useDocument((s) => s.folio)!;
  const change = useDocument((s) => s.change);
  const laid = Object.values(spread.grids ?? {}).find((g) =>
    items.some(({ id }) => g.seeds.some((s) => id === s || id.startsWith(`${s}.${g.id}-`))),
  );
  const near = useMemo(() => nearTo(spread, items), [spread, items]);
  const [grid, setGrid] = useState<Grid | null>(null);
  const shown = grid ?? null;
  useEffect(() => onPreview(shown), [shown, onPreview]);
  useEffect(() => () => onPreview(null), [onPreview]);
  const begin = (): void => setGrid(laid ?? proposed(spread, items));
  if (!grid)
    return (
      <p className="path-moves">
        <Button size="small" icon={<Grid3x3 size={13} />} onClick={begin}>
          {laid ? `Grid of ${laid.rows} × ${laid.columns} …` : 'Repeat in a grid …'}
        </Button>
      </p>
    );
  const set = (more: Partial<Grid>): void => setGrid({ ...grid, ...more });
  const number = (label: string, value: number, take: (v: number) => void, unit?: string): React.ReactNode => (
    <label>
      {label}
      <InputNumber
        aria-label={label}
        min={unit ? -2000 : 1}
        max={unit ? 2000 : 100}
        step={unit ? 0.5 : 1}
        value={value}
        suffix={unit}
        onChange={(v) => v !== null && take(v)}
      />
    </label>
  );
  const places = grid.rows * grid.columns;
  return (
    <div className="new-cue" role="group" aria-label="A grid">
      {!laid && near.length > 0 && (
        <>
          <p className="soft">Together with</p>
          {near.map((other) => (
            <Checkbox
              key={other.id}
              checked={grid.seeds.includes(other.id)}
              onChange={(e) => set({ seeds: e.target.checked ? [...grid.seeds, other.id] : grid.seeds.filter((id) => id !== other.id) })}
            >
              {itemName(folio, other)}
            </Checkbox>
          ))}
        </>
      )}
      {number('Rows', grid.rows, (rows) => set({ rows }))}
      {number('Columns', grid.columns, (columns) => set({ columns }))}
      {number('Across, from one to the next', round(toMm(grid.dx)), (v) => set({ dx: mm(v) }), 'mm')}
      {number('Down, from one to the next', round(toMm(grid.dy)), (v) => set({ dy: mm(v) }), 'mm')}
      <p className="path-moves">
        <Button
          size="small"
          type="primary"
          disabled={places > 400}
          onClick={() => {
            change([{ kind: 'grid.set', args: { spread: spread.id, grid } }], newBurst());
            setGrid(null);
          }}
        >
          {laid ? `Lay ${places} places` : `Make ${places} of it`}
        </Button>
        <Button size="small" onClick={() => setGrid(null)}>
          Leave it
        </Button>
        {laid && (
          <Button
            size="small"
            onClick={() => {
              change([{ kind: 'grid.remove', args: { spread: spread.id, grid: laid.id } }], newBurst());
              setGrid(null);
            }}
          >
            Take the copies away
          </Button>
        )}
      </p>
    </div>
  );
}

const round = (v: number): number => Math.round(v * 100) / 100;

/** Two rows of two, as far apart as what is repeated is large. */
function proposed(spread: Spread, items: readonly Item[]): Grid {
  const box = union(items.map((i) => itemBounds(spread.items, i)));
  return {
    id: `g${crypto.randomUUID().slice(0, 6)}`,
    seeds: items.map((i) => i.id),
    rows: 2,
    columns: 2,
    dx: box.width + 10,
    dy: box.height + 10,
  };
}

/** What stands over, under or right beside items and can be repeated with them. */
function nearTo(spread: Spread, items: readonly Item[]): Item[] {
  const b = union(items.map((i) => itemBounds(spread.items, i)));
  const around = { x: b.x - NEAR, y: b.y - NEAR, width: b.width + 2 * NEAR, height: b.height + 2 * NEAR };
  const page = spread.pages[0]!.box;
  return Object.values(spread.items).filter((other) => {
    const box = itemBounds(spread.items, other);
    const isGround = box.width * box.height > (page.width * page.height) / 4;
    return !items.includes(other) && other.kind !== 'group' && other.kind !== 'switcher' && !isGround && overlap(box, around) > 0;
  });
}
