import type { Node } from 'prosemirror-model';
import type { Transaction } from 'prosemirror-state';
import { Mapping } from 'prosemirror-transform';
import { contentLength, isGraphemeBoundary, plainText, same, sliceContent } from '@elastic-folio/core';
import type { Edit, Inline } from '@elastic-folio/core';
import { inlineOf } from './proseSchema.ts';

/** What an editor's change is as edits, and the ids that the paragraphs from index `from` on have then. */
export interface Translation {
  edits: Edit[];
  from: number;
  ids: string[];
}

interface Shown {
  id: string;
  content: Inline[];
}

const shownIn = (doc: Node, from: number, to: number): Shown[] =>
  Array.from({ length: to - from }, (_, i) => ({ id: doc.child(from + i).attrs['id'] as string, content: inlineOf(doc.child(from + i)) }));

/** The one place where an editor's steps become edits of ours: only the paragraphs that they reach are looked at. `newId` names new ones. */
export function editsOfTransaction(story: string, tr: Transaction, newId: () => string): Translation {
  const range = reach(tr);
  if (!range) return { edits: [], from: 0, ids: [] };
  const [before, after] = [tr.before, tr.doc];
  // Paragraphs on both sides go along: a change at an edge belongs to either.
  const start = Math.max(0, Math.min(indexAt(before, range.before[0]), indexAt(after, range.after[0])) - 1);
  const left = Math.max(
    0,
    Math.min(before.childCount - indexAt(before, range.before[1]), after.childCount - indexAt(after, range.after[1])) - 2,
  );
  const [old, fresh] = [shownIn(before, start, before.childCount - left), shownIn(after, start, after.childCount - left)];
  return { ...editsBetween(story, old, fresh, newId), from: start };
}

/** The parts of a document before and after a transaction outside of which it changes nothing; null where nothing is replaced. */
function reach(tr: Transaction): { before: [number, number]; after: [number, number] } | null {
  let found: { before: [number, number]; after: [number, number] } | null = null;
  tr.mapping.maps.forEach((map, i) => {
    const forward = tr.mapping.slice(i + 1);
    const back = new Mapping(tr.mapping.maps.slice(0, i)).invert();
    map.forEach((oldStart, oldEnd, newStart, newEnd) => {
      const before: [number, number] = [back.map(oldStart, -1), back.map(oldEnd, 1)];
      const after: [number, number] = [forward.map(newStart, -1), forward.map(newEnd, 1)];
      found = found
        ? {
            before: [Math.min(found.before[0], before[0]), Math.max(found.before[1], before[1])],
            after: [Math.min(found.after[0], after[0]), Math.max(found.after[1], after[1])],
          }
        : { before, after };
    });
  });
  return found ?? (tr.docChanged ? { before: [0, tr.before.content.size], after: [0, tr.doc.content.size] } : null);
}

/** The paragraph that a position lies in, or that begins at it. */
const indexAt = (doc: Node, position: number): number =>
  Math.min(doc.childCount - 1, doc.resolve(Math.min(position, doc.content.size)).index(0));

/** Units of a text as comparable values: a letter with its look, or an object. */
const units = (content: readonly Inline[]): string[] =>
  content.flatMap((n) => {
    if (n.type !== 'span') return [JSON.stringify(n)];
    const look = JSON.stringify([n.style, n.overrides, n.link, n.translate]);
    return n.text.split('').map((c) => c + look);
  });

/** Length of what two texts share at the beginning, on a grapheme boundary of both. */
function sharedStart(a: Inline[], b: Inline[]): number {
  const [ua, ub] = [units(a), units(b)];
  let n = 0;
  while (n < ua.length && n < ub.length && ua[n] === ub[n]) n++;
  const [ta, tb] = [plainText(a), plainText(b)];
  while (n > 0 && !(isGraphemeBoundary(ta, n) && isGraphemeBoundary(tb, n))) n--;
  return n;
}

/** Length of what they share at the end, without touching the first `from` units. */
function sharedEnd(a: Inline[], b: Inline[], fromA: number, fromB: number): number {
  const [ua, ub] = [units(a), units(b)];
  let n = 0;
  while (n < ua.length - fromA && n < ub.length - fromB && ua[ua.length - 1 - n] === ub[ub.length - 1 - n]) n++;
  const [ta, tb] = [plainText(a), plainText(b)];
  while (n > 0 && !(isGraphemeBoundary(ta, ta.length - n) && isGraphemeBoundary(tb, tb.length - n))) n--;
  return n;
}

/** The edits that lead from some paragraphs that follow one another to others, and the ids that those have then. */
function editsBetween(story: string, before: Shown[], after: Shown[], newId: () => string): Omit<Translation, 'from'> {
  const alike = (a: Shown | undefined, b: Shown | undefined): boolean => a?.id === b?.id && same(a?.content, b?.content);
  let head = 0;
  while (head < before.length && head < after.length && alike(before[head], after[head])) head++;
  let tail = 0;
  while (
    tail < before.length - head &&
    tail < after.length - head &&
    alike(before[before.length - 1 - tail], after[after.length - 1 - tail])
  )
    tail++;
  const ids = after.map((p) => p.id);
  if (head === before.length && head === after.length) return { edits: [], ids };

  const oldIds = before.slice(head, before.length - tail).map((p) => p.id);
  if (oldIds.length && oldIds.join() === ids.slice(head, ids.length - tail).join())
    return { ids, edits: oldIds.flatMap((_, i) => replaceWithin(story, before[head + i]!, after[head + i]!)) };

  // Whole paragraphs came or went: one neighbour that stays gives the change a beginning.
  if (head === before.length - tail || head === after.length - tail) {
    if (head > 0) head--;
    else tail = Math.max(0, tail - 1);
  }
  const old = before.slice(head, before.length - tail);
  const fresh = after.slice(head, after.length - tail);
  const [first, last] = [old[0]!, old[old.length - 1]!];
  const start = sharedStart(first.content, fresh[0]!.content);
  const end = sharedEnd(last.content, fresh[fresh.length - 1]!.content, old.length === 1 ? start : 0, fresh.length === 1 ? start : 0);
  const content = fresh.map((p, i) =>
    sliceContent(p.content, i === 0 ? start : 0, contentLength(p.content) - (i === fresh.length - 1 ? end : 0)),
  );
  const newIds = fresh.slice(1).map(() => newId());
  ids.splice(head, fresh.length, first.id, ...newIds);
  const edit: Edit = {
    kind: 'text.replace',
    args: {
      story,
      from: { paragraphId: first.id, offset: start },
      to: { paragraphId: last.id, offset: contentLength(last.content) - end },
      content,
      newIds,
    },
  };
  return { edits: [edit], ids };
}

function replaceWithin(story: string, old: Shown, fresh: Shown): Edit[] {
  if (same(old.content, fresh.content)) return [];
  const start = sharedStart(old.content, fresh.content);
  const end = sharedEnd(old.content, fresh.content, start, start);
  const content = [sliceContent(fresh.content, start, contentLength(fresh.content) - end)];
  return [
    {
      kind: 'text.replace',
      args: {
        story,
        from: { paragraphId: old.id, offset: start },
        to: { paragraphId: old.id, offset: contentLength(old.content) - end },
        content,
        newIds: [],
      },
    },
  ];
}
