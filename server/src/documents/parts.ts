import { createHash } from 'node:crypto';
import { blockIds, canonicalJson, partPath, replacedSince } from '@elastic-folio/core';
import type { Folio, Story } from '@elastic-folio/core';
import { editionsOfBefore } from '@elastic-folio/core/language';

/** A document as its parts, under their paths in the package. */
export function partsOf(folio: Folio): Map<string, unknown> {
  const parts = new Map<string, unknown>([[partPath.head, folio.head]]);
  for (const [id, v] of Object.entries(folio.spreads)) parts.set(partPath.spread(id), v);
  for (const [id, v] of Object.entries(folio.stories)) parts.set(partPath.story(id), v);
  for (const [id, v] of Object.entries(folio.editions)) parts.set(partPath.edition(id), v);
  for (const [id, v] of Object.entries(folio.recipes)) parts.set(partPath.recipe(id), v);
  return parts;
}

/** A text of more paragraphs than this lies in so many rows: a change of a long text is written without the rest of it. */
const LONG_TEXT = 400;
const BLOCK_ROWS = 64;

const isLong = (story: Story | undefined): boolean => story !== undefined && blockIds(story.blocks).length > LONG_TEXT;
const blockRowPath = (story: string, row: number): string => `stories/${story}/blocks/${row}.json`;

/** Which of the rows of a long text holds a block (FNV-1a, 32 bits). */
function blockRow(id: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < id.length; i++) hash = Math.imul(hash ^ id.charCodeAt(i), 0x01000193);
  return (hash >>> 0) % BLOCK_ROWS;
}

const sorted = new WeakMap<readonly string[], string[][]>();

/** The ids of a text’s blocks by the rows that hold them. */
function idsByRow({ blocks }: Story): string[][] {
  const ids = blockIds(blocks);
  let rows = sorted.get(ids);
  if (!rows) {
    rows = Array.from({ length: BLOCK_ROWS }, () => []);
    for (const id of ids) rows[blockRow(id)]!.push(id);
    sorted.set(ids, rows);
  }
  return rows;
}

/** A row of a long text; null where nothing is in it. */
function rowOfBlocks(story: Story, row: number): Story['blocks'] | null {
  const ids = idsByRow(story)[row]!;
  return ids.length ? Object.fromEntries(ids.map((id) => [id, story.blocks[id]!])) : null;
}

/** The rows of a text. */
function* rowsOfStory(story: Story): Generator<[string, unknown]> {
  if (!isLong(story)) return yield [partPath.story(story.id), story];
  yield [partPath.story(story.id), { ...story, blocks: {} }];
  for (let row = 0; row < BLOCK_ROWS; row++) {
    const blocks = rowOfBlocks(story, row);
    if (blocks) yield [blockRowPath(story.id, row), blocks];
  }
}

/** A document as the rows that hold it. */
export function rowsOf(folio: Folio): Map<string, unknown> {
  const rows = partsOf(folio);
  for (const story of Object.values(folio.stories)) for (const [path, body] of rowsOfStory(story)) rows.set(path, body);
  return rows;
}

/** Puts rows together again; they were checked when they were written. */
export function folioFrom(rows: readonly { path: string; body: unknown }[]): Folio {
  const folio = { head: undefined, spreads: {}, stories: {}, editions: {}, recipes: {} } as unknown as Folio;
  const blocks: [story: string, blocks: Story['blocks']][] = [];
  for (const { path, body } of rows) {
    if (path === partPath.head) folio.head = body as Folio['head'];
    const inside = /^stories\/([^/]+)\/blocks\/\d+\.json$/.exec(path);
    const match = /^(spreads|stories|editions|recipes)\/([^/]+)\.json$/.exec(path);
    if (inside) blocks.push([inside[1]!, body as Story['blocks']]);
    else if (match) (folio[match[1] as 'spreads'] as Record<string, unknown>)[match[2]!] = body;
  }
  for (const [story, some] of blocks) Object.assign(folio.stories[story]!.blocks, some);
  Object.assign(folio.editions, editionsOfBefore(folio, folio.editions));
  return folio;
}

/** A hash that is the same for equal JSON whatever order a database keeps its keys in. */
export const hashOf = (value: unknown): string => createHash('sha256').update(canonicalJson(value)).digest('hex');

/** The rows that are another after a change, by their paths; `null` for a row that went. */
export function changedRows(before: Folio, after: Folio): Map<string, unknown> {
  const changed = new Map<string, unknown>();
  if (before.head !== after.head) changed.set(partPath.head, after.head);
  const kinds = [
    ['spreads', partPath.spread],
    ['editions', partPath.edition],
    ['recipes', partPath.recipe],
  ] as const;
  for (const [kind, path] of kinds) {
    const [a, b] = [before[kind] as Record<string, unknown>, after[kind] as Record<string, unknown>];
    if (a === b) continue;
    for (const id of new Set([...Object.keys(a), ...Object.keys(b)])) if (a[id] !== b[id]) changed.set(path(id), b[id] ?? null);
  }
  if (before.stories !== after.stories)
    for (const id of new Set([...Object.keys(before.stories), ...Object.keys(after.stories)]))
      for (const [path, body] of changedInStory(before.stories[id], after.stories[id])) changed.set(path, body);
  return changed;
}

function* changedInStory(before: Story | undefined, after: Story | undefined): Generator<[string, unknown]> {
  if (before === after) return;
  const anew = !before || !after || isLong(before) !== isLong(after);
  if (before && anew) for (const [path] of rowsOfStory(before)) yield [path, null];
  if (!after) return;
  if (anew || !isLong(after)) return yield* rowsOfStory(after);
  const fields = Object.keys({ ...before, ...after }) as (keyof Story)[];
  if (fields.some((key) => key !== 'blocks' && before[key] !== after[key])) yield [partPath.story(after.id), { ...after, blocks: {} }];
  const rows = new Set((replacedSince(before.blocks, after.blocks) ?? differingIds(before.blocks, after.blocks)).map(blockRow));
  for (const row of rows) yield [blockRowPath(after.id, row), rowOfBlocks(after, row)];
}

const differingIds = (before: Story['blocks'], after: Story['blocks']): string[] =>
  [...new Set([...blockIds(before), ...blockIds(after)])].filter((id) => before[id] !== after[id]);
