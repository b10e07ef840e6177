import { current, isDraft } from 'immer';
import type { Folio } from '../folio/folio.ts';
import { multiply, translation } from '../folio/geometry.ts';
import type { Item } from '../folio/items.ts';
import type { Grid, Spread } from '../folio/spread.ts';
import type { Story } from '../folio/story.ts';
import { TextEditError } from './place.ts';

/** How a copy is called: by what it is a copy of, and where it stands in its grid. */
export const copyId = (grid: string, id: string, row: number, column: number): string => `${id}.${grid}-${row}-${column}`;

/** The last number of a text counted on; a text without one stays as it is, a name gets one. */
export function countedOn(text: string, by: number, isName = false): string {
  const last = [...text.matchAll(/\d+/g)].pop();
  if (!last) return isName ? `${text}-${by + 1}` : text;
  const [number] = last;
  return text.slice(0, last.index) + String(Number(number) + by).padStart(number.length, '0') + text.slice(last.index + number.length);
}

/**
 * Lays a grid, or lays it anew: what is in it stays as it was changed and goes to its new place, what is not in it any more
 * goes, what is missing is copied. Names of fields, labels and texts count on, row by row.
 */
export function layGrid(draft: Folio, spread: Spread, grid: Grid): void {
  const before = spread.grids?.[grid.id];
  for (const id of grid.seeds) if (!spread.items[id]) throw new TextEditError('What is to be repeated is not in the document any more.');
  if (before)
    for (const { row, column } of placesOf(before))
      if (row >= grid.rows || column >= grid.columns) removeCopies(draft, spread, before, row, column);
  for (const { row, column } of placesOf(grid))
    for (const id of grid.seeds) {
      const seed = spread.items[id]!;
      const copy = copyId(grid.id, id, row, column);
      const transform = multiply(translation(column * grid.dx, row * grid.dy), seed.transform);
      if (spread.items[copy]) spread.items[copy].transform = transform;
      else copyItem(draft, spread, seed, copy, transform, row * grid.columns + column);
    }
  (spread.grids ??= {})[grid.id] = grid;
}

/** A copy that shares nothing with what is being changed. */
const copied = <T extends object>(value: T): T => structuredClone(isDraft(value) ? (current(value as never) as T) : value);

/** Takes a grid back: its copies go, what was repeated stays. */
export function takeGridBack(draft: Folio, spread: Spread, id: string): void {
  const grid = spread.grids?.[id];
  if (!grid || !spread.grids) return;
  for (const { row, column } of placesOf(grid)) removeCopies(draft, spread, grid, row, column);
  delete spread.grids[id];
  if (!Object.keys(spread.grids).length) delete spread.grids;
}

/** Where copies stand: everywhere but at the first place, where what is repeated stands itself. */
const placesOf = ({ rows, columns }: Grid): { row: number; column: number }[] =>
  Array.from({ length: rows * columns }, (_, i) => ({ row: Math.floor(i / columns), column: i % columns })).slice(1);

function removeCopies(draft: Folio, spread: Spread, grid: Grid, row: number, column: number): void {
  for (const seed of grid.seeds) {
    const id = copyId(grid.id, seed, row, column);
    if (!spread.items[id]) continue;
    delete spread.items[id];
    spread.order = spread.order.filter((other) => other !== id);
    const { structure } = draft.head;
    structure.decorations = structure.decorations.filter((other) => other !== id);
    for (const strand of structure.strands) strand.entries = strand.entries.filter((e) => e.item !== id);
    for (const story of Object.values(draft.stories))
      if (story.frames.length === 1 && story.frames[0]!.item === id) {
        delete draft.stories[story.id];
        draft.head.storyOrder = draft.head.storyOrder.filter((other) => other !== story.id);
      }
  }
}

function copyItem(draft: Folio, spread: Spread, seed: Item, id: string, transform: Item['transform'], count: number): void {
  if (seed.kind === 'group' || seed.kind === 'switcher')
    throw new TextEditError('Groups and switchers cannot be repeated in a grid: repeat what they hold.');
  const item = { ...copied(seed), id, transform, cues: {} } as Item;
  if (item.name) item.name = countedOn(item.name, count);
  if (item.kind === 'field') {
    item.fieldName = countedOn(item.fieldName, count, true);
    item.label = countedOn(item.label, count);
    if (item.control.type === 'radio') item.control.value = countedOn(item.control.value, count, true);
  }
  const story = Object.values(draft.stories).find((s) => s.frames.some((f) => f.item === seed.id));
  if (story) copyStory(draft, story, spread.id, id, count);
  spread.items[id] = item;
  const last = lastOf(spread.order, seed.id);
  spread.order.splice(last + 1, 0, id);
  const { structure } = draft.head;
  if (structure.decorations.includes(seed.id)) structure.decorations.push(id);
  for (const { entries } of structure.strands) {
    if (!entries.some((e) => e.item === seed.id)) continue;
    entries.splice(
      lastOf(
        entries.map((e) => e.item),
        seed.id,
      ) + 1,
      0,
      { spread: spread.id, item: id },
    );
  }
}

/** The place of an item or of the last of its copies in a list. */
const lastOf = (ids: readonly string[], seed: string): number => ids.findLastIndex((id) => id === seed || id.startsWith(`${seed}.`));

function copyStory(draft: Folio, story: Story, spread: string, item: string, count: number): void {
  const plain =
    story.frames.length === 1 &&
    Object.values(story.blocks).every(
      (b) => b.kind === 'paragraph' && b.content.every((n) => n.type === 'span' || n.type === 'softReturn' || n.type === 'tab'),
    );
  if (!plain) throw new TextEditError('A text that flows on, or has notes, tables or references in it, cannot be repeated in a grid.');
  const suffix = item.slice(item.indexOf('.'));
  const named = (id: string): string => `${id}${suffix}`;
  const copy = { ...copied(story), id: named(story.id), frames: [{ spread, item }], aliases: {} } as Story;
  copy.order = story.order.map(named);
  copy.blocks = Object.fromEntries(
    Object.values(copy.blocks).map((b) => {
      if (b.kind === 'paragraph') for (const node of b.content) if (node.type === 'span') node.text = countedOn(node.text, count);
      return [named(b.id), { ...b, id: named(b.id) }];
    }),
  );
  draft.stories[copy.id] = copy;
  draft.head.storyOrder.splice(lastOf(draft.head.storyOrder, story.id) + 1, 0, copy.id);
}
