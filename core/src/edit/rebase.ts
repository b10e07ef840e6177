import type { Folio } from '../folio/folio.ts';
import { applyEdit, applyLogged } from './apply.ts';
import type { Applied } from './apply.ts';
import type { Edit, EditArgs } from './edits.ts';
import { meets } from './log.ts';
import type { LogRow } from './log.ts';
import { beginBefore, TrackedText } from './trackedText.ts';
import type { Unit } from './trackedText.ts';

type Row = Pick<LogRow, 'seq' | 'edit' | 'patches' | 'touched'>;

/** What became of an edit that was put on top of what others did meanwhile. */
export type Rebased =
  /** It holds, as one or more edits where others wrote inside of what it replaces, or none where nothing of it is left to do. */
  | { outcome: 'kept'; edits: (Applied & { edit: Edit })[] }
  /** Others changed what it changes. `text`: what it would have written, empty where it wrote nothing. */
  | { outcome: 'refused'; edit: Edit; text: string; by: number[] };

/**
 * Puts edits that were made on `base` on top of rows that others added to it. Texts are merged by position: whatever anybody
 * typed stays, in the order in which they typed it, and what both typed at one place stands one after the other, the rows first;
 * what anybody deleted is gone, but not what others typed inside of it. An edit is refused where the paragraph in which it
 * typed has been deleted, or where both changed the same field of anything else.
 *
 * `rows` must follow one another on `base`. Gives the document with all that was kept, and the outcome of each edit in order.
 */
export function rebaseEdits(base: Folio, rows: readonly Row[], edits: readonly Edit[]): { folio: Folio; outcomes: Rebased[] } {
  const merge = new Merge(base, rows, edits);
  return { outcomes: edits.map((edit) => merge.put(edit)), folio: merge.folio };
}

/** Fields that several edits write as a whole, each concerned with one entry only: two of them do not meet where these differ. */
const ENTRY_OF: { [K in Edit['kind']]?: (args: never) => string } = {
  'item.decoration': (a: { item: string }) => a.item,
  'item.figure': (a: { item: string }) => a.item,
  'item.leftOut': (a: { item: string }) => a.item,
  'paragraph.sectionStart': (a: { paragraph: string }) => a.paragraph,
};
const entryOf = ({ kind, args }: LogRow['edit']): string | undefined => ENTRY_OF[kind as Edit['kind']]?.(args as never);
const besideEachOther = (a: LogRow['edit'], b: LogRow['edit']): boolean => a.kind === b.kind && entryOf(a) !== entryOf(b);

type WordsEdit = Extract<Edit, { kind: 'words.language' | 'words.translate' }>;
const isOfWords = (edit: Edit): edit is WordsEdit => edit.kind === 'words.language' || edit.kind === 'words.translate';

class Merge {
  /** The document with the rows and what has been kept so far. */
  folio: Folio;
  /** The document as whoever made the edits saw it. */
  private mine: Folio;
  private readonly myTexts: TrackedText;
  private readonly texts: TrackedText;
  /** Units of refused edits: what was typed into them is refused, too. */
  private readonly refusedUnits = new Set<Unit>();

  constructor(
    base: Folio,
    private readonly rows: readonly Row[],
    edits: readonly Edit[],
  ) {
    const tracked = TrackedText.of(base, reachedBy(rows, edits));
    for (const { story, paragraph } of placesIn(rows, edits)) tracked.listOf(story, paragraph);
    this.mine = base;
    this.myTexts = tracked.copy();
    this.texts = tracked;
    this.folio = base;
    for (const row of rows) {
      this.folio = applyLogged(this.folio, row.patches);
      tracked.follow(row, this.folio);
    }
  }

  put(edit: Edit): Rebased {
    const applied = applyEdit(this.mine, edit);
    if (!applied.patches.length) return { outcome: 'kept', edits: [] };
    const { folio: before } = this;
    let outcome: Rebased;
    try {
      outcome = edit.kind === 'text.replace' ? this.putText(edit, applied.folio) : this.putOther(edit, applied);
    } catch {
      // What the edit names is not there any more, or not as it must be.
      this.folio = before;
      outcome = this.refused(edit, applied.touched, '');
    }
    this.mine = applied.folio;
    if (edit.kind !== 'text.replace') this.myTexts.follow({ edit }, applied.folio);
    return outcome;
  }

  private refused(edit: Edit, touched: readonly string[], text: string): Rebased {
    return { outcome: 'refused', edit, text, by: meets(this.rows, 0, touched) };
  }

  private putOther(edit: Edit, { touched }: Applied): Rebased {
    const met = new Set(meets(this.rows, 0, touched));
    const against = this.rows.filter((r) => met.has(r.seq) && !besideEachOther(edit, r.edit));
    if (!against.length) return { outcome: 'kept', edits: [this.apply(edit.kind === 'pin.set' ? this.movedPin(edit) : edit)] };
    // Others did the very same.
    if (!isOfWords(edit) && !applyEdit(this.folio, edit).patches.length) return { outcome: 'kept', edits: [] };
    const moved = isOfWords(edit) && this.movedWords(edit);
    return moved ? { outcome: 'kept', edits: [this.apply(moved)] } : this.refused(edit, touched, '');
  }

  /** Carries an edit out on the merged document. */
  private apply(edit: Edit): Applied & { edit: Edit } {
    const applied = applyEdit(this.folio, edit);
    this.folio = applied.folio;
    if (edit.kind !== 'text.replace') this.texts.follow({ edit }, applied.folio);
    return { ...applied, edit };
  }

  /** An edit of some words, for where these words are now; null where they do not stand in one paragraph any more. */
  private movedWords(edit: WordsEdit): WordsEdit | null {
    const { story, paragraph, from, to } = edit.args;
    const mine = this.myTexts.listOf(story, paragraph);
    const theirs = mine && this.texts.list(mine.key);
    if (!mine || !theirs) return null;
    const begin = mine.units.findIndex((u) => u.begins === paragraph);
    const words = new Set(mine.units.slice(begin + 1 + from, begin + 1 + to));
    const places = theirs.flatMap((u, i) => (words.has(u) ? [i] : []));
    const [first, last] = [places[0], places[places.length - 1]];
    if (first === undefined || last === undefined) return null;
    const [a, b] = [this.texts.placeOf(story, theirs, first), this.texts.placeOf(story, theirs, last)];
    if (!a || a.paragraphId !== b?.paragraphId) return null;
    return { ...edit, args: { ...edit.args, paragraph: a.paragraphId, from: a.offset, to: b.offset + 1 } } as WordsEdit;
  }

  /** A pin for where the letter behind which it stands is now. */
  private movedPin(edit: Extract<Edit, { kind: 'pin.set' }>): Edit {
    for (const story of Object.keys(this.mine.stories)) {
      if (!this.mine.stories[story]!.blocks[edit.args.paragraph]) continue;
      const mine = this.myTexts.listOf(story, edit.args.paragraph);
      const theirs = mine && this.texts.list(mine.key);
      if (!mine || !theirs) return edit;
      const begin = mine.units.findIndex((u) => u.begins === edit.args.paragraph);
      const before = mine.units[begin]!.whole ? undefined : mine.units[begin + edit.args.offset];
      const place = before && theirs.includes(before) && this.texts.placeOf(story, theirs, theirs.indexOf(before) + 1);
      return place ? { ...edit, args: { ...edit.args, paragraph: place.paragraphId, offset: place.offset } } : edit;
    }
    return edit;
  }

  private putText(edit: Extract<Edit, { kind: 'text.replace' }>, after: Folio): Rebased {
    const { args } = edit;
    const mineBefore = this.myTexts.listOf(args.story, args.from.paragraphId)!.units;
    const { key, at, gone, come } = this.myTexts.replace(args, after);
    const theirs = this.texts.list(key);
    const typed = come.map((u) => (u.begins === undefined ? u.text : '\n')).join('');
    const refuse = (): Rebased => {
      for (const u of come) this.refusedUnits.add(u);
      return this.refused(edit, [`${args.from.paragraphId}/content`], typed);
    };
    if (!theirs) return come.length ? refuse() : { outcome: 'kept', edits: [] };
    const there = new Set(theirs);
    if (come.length && (this.refusedUnits.has(mineBefore[at - 1]!) || !paragraphLives(mineBefore, at, gone, there))) return refuse();

    const known = new Set(mineBefore);
    const lost = new Set(gone);
    const runs: { from: number; to: number; content?: EditArgs<'text.replace'>['content']; newIds?: string[] }[] = [];
    theirs.forEach((u, i) => {
      if (!lost.has(u)) return;
      const last = runs[runs.length - 1];
      if (last?.to === i) last.to++;
      else runs.push({ from: i, to: i + 1 });
    });
    if (come.length) {
      const spot = insertionSpot(theirs, mineBefore, at, known, there);
      const run = runs.find((r) => r.from === spot || r.to === spot);
      const written = { content: args.content, newIds: args.newIds };
      if (run) Object.assign(run, written);
      else runs.push({ from: spot, to: spot, ...written });
    }
    // From the end to the beginning: what is done does not move what is still to do.
    const made = runs
      .sort((a, b) => b.from - a.from)
      .map(({ from, to, content = [[]], newIds = [] }) => {
        const now = this.texts.list(key)!;
        const [start, end] = [this.texts.placeOf(args.story, now, from), this.texts.placeOf(args.story, now, to)];
        if (!start || !end) throw new Error('No paragraph begins before this place.');
        const one: Edit = { kind: 'text.replace', args: { story: args.story, from: start, to: end, content, newIds } };
        const applied = this.apply(one);
        const inserted = content === args.content ? come : [];
        this.texts.settle(key, [...now.slice(0, from), ...inserted, ...now.slice(to)], this.folio);
        return applied;
      });
    return { outcome: 'kept', edits: made };
  }
}

/** Whether the paragraph that an index stands in, or some of its letters, is still there. */
function paragraphLives(units: readonly Unit[], at: number, gone: readonly Unit[], there: ReadonlySet<Unit>): boolean {
  const begin = beginBefore(units, at);
  if (begin < 0) return false;
  if (there.has(units[begin]!)) return true;
  const own = new Set(gone);
  for (let i = begin + 1; i < units.length && units[i]!.begins === undefined; i++)
    if (there.has(units[i]!) && !own.has(units[i]!)) return true;
  return false;
}

/** Where in `theirs` something belongs that was inserted at an index of `mine`: behind what others wrote at the same place, in the same paragraph. */
function insertionSpot(
  theirs: readonly Unit[],
  mine: readonly Unit[],
  at: number,
  known: ReadonlySet<Unit>,
  there: ReadonlySet<Unit>,
): number {
  let left = at - 1;
  while (left >= 0 && !there.has(mine[left]!)) left--;
  let spot = left < 0 ? 0 : theirs.indexOf(mine[left]!) + 1;
  while (spot < theirs.length && !known.has(theirs[spot]!) && theirs[spot]!.begins === undefined) spot++;
  return spot;
}

/** Paragraphs that some text edit reaches into, or that a row changed in another way. */
function* placesIn(rows: readonly Row[], edits: readonly Edit[]): Generator<{ story: string; paragraph: string }> {
  for (const edit of [...rows.map((r) => r.edit), ...edits]) {
    if (edit.kind === 'text.replace') {
      const { story, from, to } = edit.args;
      yield { story, paragraph: from.paragraphId };
      yield { story, paragraph: to.paragraphId };
    } else if (edit.kind === 'words.language' || edit.kind === 'words.translate') yield edit.args;
  }
  for (const { path } of rows.flatMap((r) => r.patches))
    if (path[0] === 'stories' && path[2] === 'blocks' && path.length > 3) yield { story: String(path[1]), paragraph: String(path[3]) };
}

const reachedBy = (rows: readonly Row[], edits: readonly Edit[]): Set<string> =>
  new Set([...placesIn(rows, edits)].map((p) => p.paragraph));
