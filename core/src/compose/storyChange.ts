import { replacedSince } from '../folio/blocksWith.ts';
import type { Head } from '../folio/head.ts';
import type { Block, Story } from '../folio/story.ts';
import { factsOf, listOf } from './blockFacts.ts';

/** Which of a text's blocks an edit changed: those between `head` unchanged ones and `tail` unchanged ones. */
export interface StoryChange {
  head: number;
  tail: number;
  /** Something that is counted may have changed: notes, list numbers, fields. */
  counted: boolean;
}

/** A block that stands inside another: a paragraph of a note or of a table's cell. */
export interface InnerBlock {
  owner: string;
  id: string;
}

/** All blocks that stand inside others, by the block of the text that holds them. */
export function innerBlocks(story: Story, order: readonly string[]): InnerBlock[] {
  const out: InnerBlock[] = [];
  const visit = (owner: string, id: string): void => {
    const block = story.blocks[id];
    if (!block) return;
    const within =
      block.kind === 'table' ? Object.values(block.cells).flatMap((c) => c.order) : factsOf(block).notes.flatMap((n) => n.order);
    for (const inner of within) {
      out.push({ owner, id: inner });
      visit(owner, inner);
    }
  };
  for (const id of order) visit(id, id);
  return out;
}

/** Compares two states of a text, block by block; equal blocks are the same objects. */
export function changeOf(head: Head, before: Story, now: Story, inner: readonly InnerBlock[]): StoryChange {
  const [a, b] = [before.order, now.order];
  const typed = a === b && !inner.length ? replacedSince(before.blocks, now.blocks) : null;
  if (typed) return betweenReplaced(head, before, now, typed);
  const same = (i: number, j: number): boolean => a[i] === b[j] && before.blocks[a[i]!] === now.blocks[b[j]!];
  const shorter = Math.min(a.length, b.length);
  let first = 0;
  while (first < shorter && same(first, first)) first++;
  let tail = 0;
  while (tail < shorter - first && same(a.length - 1 - tail, b.length - 1 - tail)) tail++;
  let counted = false;
  for (const { owner, id } of inner)
    if (before.blocks[id] !== now.blocks[id]) {
      counted = true;
      const [was, is] = [a.indexOf(owner), b.indexOf(owner)];
      if (was >= 0 && is >= 0) {
        first = Math.min(first, is);
        tail = Math.min(tail, b.length - 1 - is, a.length - 1 - was);
      }
    }
  for (let i = first; i < a.length - tail && !counted; i++) counted = counts(head, before.blocks[a[i]!]);
  for (let i = first; i < b.length - tail && !counted; i++) counted = counts(head, now.blocks[b[i]!]);
  return { head: first, tail, counted };
}

/** Whether something in a block is counted: notes, list numbers, fields. */
function counts(head: Head, block: Block | undefined): boolean {
  if (block?.kind !== 'paragraph') return block !== undefined;
  const facts = factsOf(block);
  return facts.notes.length > 0 || facts.fields.length > 0 || listOf(head, block) !== null;
}

/** The change of a text of which it is known which blocks were replaced. */
function betweenReplaced(head: Head, before: Story, { order, blocks }: Story, replaced: readonly string[]): StoryChange {
  const at = replaced.map((id) => order.indexOf(id)).filter((i) => i >= 0);
  if (!at.length) return { head: order.length, tail: 0, counted: false };
  const [first, last] = [Math.min(...at), Math.max(...at)];
  const between = order.slice(first, last + 1);
  return {
    head: first,
    tail: order.length - 1 - last,
    counted: between.some((id) => counts(head, before.blocks[id]) || counts(head, blocks[id])),
  };
}
