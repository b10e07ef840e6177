import type { Folio } from '../folio/folio.ts';
import type { Inline, Paragraph, Story } from '../folio/story.ts';
import { contentLength, plainText, toGraphemeBoundary } from '../folio/text.ts';
import type { EditArgs } from './edits.ts';
import type { LogRow } from './log.ts';
import type { Place } from './place.ts';
import { listWith } from './place.ts';

/**
 * One unit of a tracked list of paragraphs: the beginning of a paragraph (`begins`), or one unit of its content. Units are
 * compared by identity: two versions of a list that hold the same object hold the same letter, whatever was typed around it.
 */
export interface Unit {
  readonly text: string;
  /** The paragraph or table that begins here. */
  readonly begins?: string;
  /** Stands for all of a block whose content no edit at hand reaches into. */
  readonly whole?: boolean;
}

/**
 * The lists of paragraphs of a document (texts, cells, notes) as rows of units that keep their identity through edits. A copy
 * shares the units, so that two copies that went different ways can be held against each other unit by unit.
 */
export class TrackedText {
  private constructor(
    private folio: Folio,
    /** Paragraphs that some edit reaches into; all others are tracked as a whole. */
    private readonly reached: ReadonlySet<string>,
    private readonly lists: Map<string, readonly Unit[]>,
  ) {}

  static of(folio: Folio, reached: ReadonlySet<string>): TrackedText {
    return new TrackedText(folio, reached, new Map());
  }

  copy(): TrackedText {
    return new TrackedText(this.folio, this.reached, new Map(this.lists));
  }

  /** The list that holds a paragraph, as it is now; undefined where the paragraph is in none. */
  listOf(story: string, paragraph: string): { key: string; units: readonly Unit[] } | undefined {
    const text = this.folio.stories[story];
    const ids = text && listWith(text, paragraph);
    if (!text || !ids) return undefined;
    const key = keyOf(text, ids);
    let units = this.lists.get(key);
    if (!units) this.lists.set(key, (units = ids.flatMap((id) => this.unitsOf(text, id))));
    return { key, units };
  }

  /** A list by its key, if it has been looked at in this copy or the one it was copied from. */
  list(key: string): readonly Unit[] | undefined {
    return this.lists.get(key);
  }

  private unitsOf(story: Story, id: string): Unit[] {
    const block = story.blocks[id];
    if (block?.kind !== 'paragraph' || !this.reached.has(id)) return [{ text: '', begins: id, whole: true }];
    return [{ text: '', begins: id }, ...unitsOfText(plainText(block.content))];
  }

  /** Carries a replacement out; `after` is the document that has it. Says what went, what came, and where. */
  replace(edit: EditArgs<'text.replace'>, after: Folio): { key: string; at: number; gone: Unit[]; come: Unit[] } {
    const { key, units } = this.listOf(edit.story, edit.from.paragraphId)!;
    const [start, end] = [this.indexOf(units, edit.story, edit.from), this.indexOf(units, edit.story, edit.to)];
    const come = edit.content.flatMap((piece, i): Unit[] => [
      ...(i ? [{ text: '', begins: edit.newIds[i - 1]! }] : []),
      ...unitsOfText(plainText(piece as Inline[])),
    ]);
    this.lists.set(key, [...units.slice(0, start), ...come, ...units.slice(end)]);
    this.folio = after;
    return { key, at: start, gone: units.slice(start, end), come };
  }

  /** Follows a row of somebody else to `after`, the document that it leads to. */
  follow(row: Pick<LogRow, 'edit'>, after: Folio): void {
    const { edit } = row;
    if (edit.kind === 'text.replace') {
      if (this.listOf(edit.args.story, edit.args.from.paragraphId)) this.replace(edit.args, after);
      else this.folio = after;
      return;
    }
    const before = this.folio;
    this.folio = after;
    for (const [key, units] of this.lists) {
      const { storyId, ids } = idsOf(after, key);
      const [was, now] = [before.stories[storyId], after.stories[storyId]];
      if (was === now) continue;
      if (!now || !ids) this.lists.set(key, []);
      else
        this.lists.set(
          key,
          followed(units, was, now, ids, (id) => this.unitsOf(now, id)),
        );
    }
  }

  /** The index in a list of a place, settled on a grapheme boundary as the edit itself does it. */
  private indexOf(units: readonly Unit[], story: string, place: Place): number {
    const begin = units.findIndex((u) => u.begins === place.paragraphId);
    const block = this.folio.stories[story]?.blocks[place.paragraphId] as Paragraph;
    return begin + 1 + toGraphemeBoundary(plainText(block.content), place.offset);
  }

  /** The place of an index in a list; undefined where no paragraph begins before it. */
  placeOf(story: string, units: readonly Unit[], index: number): Place | undefined {
    const begin = beginBefore(units, index);
    if (begin < 0) return undefined;
    const { begins, whole } = units[begin]!;
    const block = this.folio.stories[story]?.blocks[begins!];
    if (block?.kind !== 'paragraph') return undefined;
    return { paragraphId: begins!, offset: whole ? contentLength(block.content) : index - begin - 1 };
  }

  /** Puts a list in the place of the one that is there, with the document that has it. */
  settle(key: string, units: readonly Unit[], after: Folio): void {
    this.lists.set(key, units);
    this.folio = after;
  }

  /** The document moves on in a way that no list is concerned with. */
  moveOn(after: Folio): void {
    this.folio = after;
  }
}

/** The index of the unit that begins the paragraph in which an index stands; -1 where there is none. */
export function beginBefore(units: readonly Unit[], index: number): number {
  let i = Math.min(index, units.length) - 1;
  while (i >= 0 && units[i]!.begins === undefined) i--;
  return i;
}

const unitsOfText = (text: string): Unit[] => text.split('').map((c) => ({ text: c }));

/** Names a list by what holds it: a text itself, or the cell or note in it. */
function keyOf(story: Story, ids: readonly string[]): string {
  if (story.order === ids) return story.id;
  for (const block of Object.values(story.blocks)) {
    if (block.kind === 'table') for (const cell of Object.values(block.cells)) if (cell.order === ids) return `${story.id} ${cell.id}`;
    if (block.kind === 'paragraph')
      for (const node of block.content) if (node.type === 'note' && node.order === ids) return `${story.id} ${node.id}`;
  }
  return story.id;
}

function idsOf(folio: Folio, key: string): { storyId: string; ids: readonly string[] | undefined } {
  const [storyId = '', holder] = key.split(' ');
  const story = folio.stories[storyId];
  if (!story || holder === undefined) return { storyId, ids: story?.order };
  for (const block of Object.values(story.blocks)) {
    if (block.kind === 'table' && block.cells[holder]) return { storyId, ids: block.cells[holder].order };
    if (block.kind === 'paragraph')
      for (const node of block.content) if (node.type === 'note' && node.id === holder) return { storyId, ids: node.order };
  }
  return { storyId, ids: undefined };
}

/** A list after a change of which only the outcome is known: paragraphs by their ids, letters by what is the same at both ends. */
function followed(
  units: readonly Unit[],
  was: Story | undefined,
  now: Story,
  ids: readonly string[],
  fresh: (id: string) => Unit[],
): Unit[] {
  const parts = new Map<string, Unit[]>();
  let part: Unit[] = [];
  for (const u of units) {
    if (u.begins !== undefined) parts.set(u.begins, (part = []));
    part.push(u);
  }
  return ids.flatMap((id) => {
    const known = parts.get(id);
    if (!known) return fresh(id);
    const [a, b] = [was?.blocks[id], now.blocks[id]];
    if (a === b || known[0]!.whole || b?.kind !== 'paragraph') return known;
    const text = plainText(b.content);
    const old = known.slice(1);
    let start = 0;
    while (start < old.length && start < text.length && old[start]!.text === text[start]) start++;
    let end = 0;
    while (end < old.length - start && end < text.length - start && old[old.length - 1 - end]!.text === text[text.length - 1 - end]) end++;
    return [known[0]!, ...old.slice(0, start), ...unitsOfText(text.slice(start, text.length - end)), ...old.slice(old.length - end)];
  });
}
