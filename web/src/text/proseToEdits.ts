import type { Node } from 'prosemirror-model';
import { contentLength, isGraphemeBoundary, plainText, sliceContent } from '@elastic-folio/core';
import type { Edit, Inline, Paragraph, Story } from '@elastic-folio/core';
import { editable, inlineOf } from './proseSchema.ts';

/** What an editor's document differs in from the story, as edits, and the ids its paragraphs have then. */
export interface Translation {
  edits: Edit[];
  ids: string[];
}

interface Shown {
  id: string;
  content: Inline[];
}

const same = (a: Inline[], b: Inline[]): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Units of a text as comparable values: a letter with its look, or an object. */
const units = (content: readonly Inline[]): string[] =>
  content.flatMap((n) =>
    n.type === 'span' ? n.text.split('').map((c) => c + JSON.stringify([n.style, n.overrides, n.link])) : [JSON.stringify(n)],
  );

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

/** The one place where an editor's document becomes edits of ours. `newId` names paragraphs that come into being. */
export function proseToEdits(story: Story, doc: Node, newId: () => string): Translation {
  const before: Shown[] = editable(story).map((p: Paragraph) => ({ id: p.id, content: p.content }));
  const after: Shown[] = [];
  doc.forEach((node) => after.push({ id: node.attrs['id'] as string, content: inlineOf(node) }));
  let head = 0;
  while (
    head < before.length &&
    head < after.length &&
    before[head]!.id === after[head]!.id &&
    same(before[head]!.content, after[head]!.content)
  )
    head++;
  let tail = 0;
  while (
    tail < before.length - head &&
    tail < after.length - head &&
    before[before.length - 1 - tail]!.id === after[after.length - 1 - tail]!.id &&
    same(before[before.length - 1 - tail]!.content, after[after.length - 1 - tail]!.content)
  )
    tail++;
  const ids = after.map((p) => p.id);
  if (head === before.length && head === after.length) return { edits: [], ids };

  const oldIds = before.slice(head, before.length - tail).map((p) => p.id);
  if (oldIds.length && oldIds.join() === ids.slice(head, ids.length - tail).join())
    return { ids, edits: oldIds.flatMap((_, i) => replaceWithin(story.id, before[head + i]!, after[head + i]!)) };

  // Whole paragraphs came or went: one neighbour that stays gives the change a beginning.
  if (head === before.length - tail || head === after.length - tail) {
    if (head > 0) head--;
    else tail = Math.max(0, tail - 1);
  }
  const old = before.slice(head, before.length - tail);
  const fresh = after.slice(head, after.length - tail);
  const [first, last] = [old[0]!, old[old.length - 1]!];
  const start = sharedStart(first.content, fresh[0]!.content);
  const single = old.length === 1 && fresh.length === 1;
  const end = sharedEnd(
    last.content,
    fresh[fresh.length - 1]!.content,
    old.length === 1 ? start : 0,
    fresh.length === 1 || single ? start : 0,
  );
  const content = fresh.map((p, i) =>
    sliceContent(p.content, i === 0 ? start : 0, contentLength(p.content) - (i === fresh.length - 1 ? end : 0)),
  );
  const newIds = fresh.slice(1).map(() => newId());
  ids.splice(head, fresh.length, first.id, ...newIds);
  const edit: Edit = {
    kind: 'text.replace',
    args: {
      story: story.id,
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
