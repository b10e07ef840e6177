import type { Pin } from '../folio/head.ts';
import type { Inline, Paragraph, Story } from '../folio/story.ts';
import { contentLength, normalise, plainText, sliceContent, toGraphemeBoundary } from '../folio/text.ts';

/** A position in text: before the unit `offset` of a paragraph, on a grapheme boundary. */
export interface Place {
  paragraphId: string;
  offset: number;
}

/**
 * Replaces what lies between two places of one list of paragraphs by new content. `content` has one
 * entry per paragraph touched: n entries leave n − 1 new paragraph ends, so `[[]]` deletes and joins,
 * `[[], []]` splits. `newIds` names the paragraphs that come into being, `content.length − 1` of them.
 */
export interface TextReplacement {
  from: Place;
  to: Place;
  content: Inline[][];
  newIds: string[];
}

export class TextEditError extends Error {}

/** The list in which a paragraph stands: the story's own, a cell's or a note's. */
export function listWith(story: Story, id: string): string[] | undefined {
  if (story.order.includes(id)) return story.order;
  for (const block of Object.values(story.blocks)) {
    if (block.kind === 'table') for (const cell of Object.values(block.cells)) if (cell.order.includes(id)) return cell.order;
    if (block.kind === 'paragraph')
      for (const node of block.content) if (node.type === 'note' && node.order.includes(id)) return node.order;
  }
  return undefined;
}

function paragraph(story: Story, place: Place): Paragraph {
  const block = story.blocks[place.paragraphId];
  if (block?.kind !== 'paragraph') throw new TextEditError(`There is no paragraph "${place.paragraphId}" in this text any more.`);
  return block;
}

const settle = (story: Story, place: Place): number => toGraphemeBoundary(plainText(paragraph(story, place).content), place.offset);

/** Changes `story` in place (it is an immer draft). The first paragraph keeps its id, style and formatting. */
export function replaceText(story: Story, edit: TextReplacement): void {
  const first = paragraph(story, edit.from);
  const last = paragraph(story, edit.to);
  const list = listWith(story, first.id);
  const [start, end] = [list?.indexOf(first.id) ?? -1, list?.indexOf(last.id) ?? -1];
  const [fromOffset, toOffset] = [settle(story, edit.from), settle(story, edit.to)];
  if (!list || start < 0 || end < start || (start === end && toOffset < fromOffset))
    throw new TextEditError('The end of a text range must follow its beginning in the same text.');
  if (edit.content.length < 1 || edit.newIds.length !== edit.content.length - 1)
    throw new TextEditError('A text edit must name every new paragraph.');
  for (const id of edit.newIds) if (story.blocks[id]) throw new TextEditError(`The id "${id}" is taken.`);
  if (list.slice(start, end + 1).some((id) => story.blocks[id]?.kind !== 'paragraph'))
    throw new TextEditError('A text range cannot reach across a table.');

  const head = sliceContent(first.content, 0, fromOffset);
  const tail = sliceContent(last.content, toOffset, contentLength(last.content));
  const pieces = edit.content.map((piece, i) => [...(i === 0 ? head : []), ...piece, ...(i === edit.content.length - 1 ? tail : [])]);
  const removed = list.slice(start + 1, end + 1);
  for (const id of removed) {
    delete story.blocks[id];
    story.aliases[id] = first.id;
  }
  first.content = normalise(pieces[0]!);
  edit.newIds.forEach((id, i) => {
    const { overrides, character } = first;
    story.blocks[id] = {
      kind: 'paragraph',
      id,
      style: first.style,
      ...(overrides && { overrides }),
      ...(character && { character }),
      content: normalise(pieces[i + 1]!),
    };
    delete story.aliases[id];
  });
  list.splice(start + 1, removed.length, ...edit.newIds);
}

/**
 * Where a place is after an edit. `stick` says to which side a place exactly at an insertion keeps.
 * Places inside replaced text go to the end of what replaced it.
 */
export function mapPlace(place: Place, edit: TextReplacement, order: readonly string[], stick: 'before' | 'after' = 'after'): Place {
  const position = (p: Place): [number, number] => [order.indexOf(p.paragraphId), p.offset];
  const compare = (a: Place, b: Place): number => {
    const [[ap, ao], [bp, bo]] = [position(a), position(b)];
    return ap - bp || ao - bo;
  };
  const lastPiece = edit.content[edit.content.length - 1]!;
  const endId = edit.newIds[edit.newIds.length - 1] ?? edit.from.paragraphId;
  const endOffset = (edit.newIds.length ? 0 : edit.from.offset) + contentLength(lastPiece);
  if (order.indexOf(place.paragraphId) < 0) return place;
  if (compare(place, edit.from) < 0 || (compare(place, edit.from) === 0 && stick === 'before')) return place;
  if (compare(place, edit.to) <= 0) return { paragraphId: endId, offset: endOffset };
  if (place.paragraphId === edit.to.paragraphId) return { paragraphId: endId, offset: endOffset + place.offset - edit.to.offset };
  return place;
}

/** What is pinned to paragraphs of a list stays at its words: those behind which it stands in a line, else its paragraph. */
export function movePins(pins: readonly Pin[], edit: TextReplacement, order: readonly string[]): void {
  for (const pin of pins) {
    if (!order.includes(pin.paragraph)) continue;
    const inLine = pin.as === 'inline';
    const at = mapPlace({ paragraphId: pin.paragraph, offset: inLine ? pin.offset : 0 }, edit, order, 'before');
    if (at.paragraphId !== pin.paragraph) pin.paragraph = at.paragraphId;
    if (inLine && at.offset !== pin.offset) pin.offset = at.offset;
  }
}

/** A paragraph id after merges: follows aliases to the paragraph that holds the text now. */
export function currentParagraph(story: Story, id: string): string | undefined {
  const seen = new Set<string>();
  let at: string | undefined = id;
  while (at !== undefined && !story.blocks[at] && !seen.has(at)) {
    seen.add(at);
    at = story.aliases[at];
  }
  return at !== undefined && story.blocks[at] ? at : undefined;
}
