import type { Block, Story } from './story.ts';

type Blocks = Story['blocks'];
/** An earlier table of blocks, and in which of them a later one differs from it. */
interface Since {
  from: WeakRef<Blocks>;
  ids: readonly string[];
}

/** As many earlier tables are remembered as there may be letters typed before a text is set again. */
const REMEMBERED = 16;
const keysOf = new WeakMap<Blocks, readonly string[]>();
const sinceOf = new WeakMap<Blocks, readonly Since[]>();

/** The ids of a table of blocks; of tables that came of one another by `blocksWith`, one and the same list. */
export function blockIds(blocks: Blocks): readonly string[] {
  let keys = keysOf.get(blocks);
  if (!keys) keysOf.set(blocks, (keys = Object.keys(blocks)));
  return keys;
}

/**
 * A table of blocks with one of them replaced. A long text has tens of thousands: they are copied key by key from a list kept of
 * them, three times as fast as a spread, and what differs is remembered, so that nobody has to look for it.
 */
export function blocksWith(blocks: Blocks, id: string, block: Block): Blocks {
  const keys = blockIds(blocks);
  const copy: Blocks = {};
  for (const key of keys) copy[key] = blocks[key]!;
  copy[id] = block;
  keysOf.set(copy, keys);
  const earlier = (sinceOf.get(blocks) ?? []).map(({ from, ids }) => ({ from, ids: ids.includes(id) ? ids : [...ids, id] }));
  sinceOf.set(copy, [{ from: new WeakRef(blocks), ids: [id] }, ...earlier].slice(0, REMEMBERED));
  return copy;
}

/** The blocks that were replaced between two tables, all else being the same; null where that is not known. */
export function replacedSince(before: Blocks, now: Blocks): readonly string[] | null {
  if (before === now) return [];
  return sinceOf.get(now)?.find(({ from }) => from.deref() === before)?.ids ?? null;
}
