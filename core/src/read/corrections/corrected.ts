import type { Correction, WordChange } from '../../edit/correction.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import { OBJECT, plainText } from '../../folio/text.ts';
import { FolioError } from '../../ports/ports.ts';
import { wordDiff } from './wordDiff.ts';

/** Throws where a file was written from another document. */
export function refuseOther(folio: Folio, document: string): void {
  if (document !== folio.head.id)
    throw new FolioError('corrections.other', 'The file was written from another document.', 'Open that document, or choose another file.');
}

/** Every paragraph of a document, and the text that it is of. */
export function paragraphsOf(folio: Folio): Map<string, { story: Story; paragraph: Paragraph }> {
  const out = new Map<string, { story: Story; paragraph: Paragraph }>();
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks)) if (block.kind === 'paragraph') out.set(block.id, { story, paragraph: block });
  return out;
}

/** A change of a paragraph as it is shown and taken. */
export function correctionOf(
  story: Story,
  paragraph: Paragraph,
  told: { changes: WordChange[]; keepsObjects: boolean; changedHere: boolean },
): Correction {
  const ours = plainText(paragraph.content);
  return { story: story.id, paragraph: paragraph.id, before: shown(ours), after: shown(changed(ours, told.changes)), ...told };
}

/** Words that differ. What is no letter stays where it is: a file may have it as words, or have lost it. */
export function changesBetween(ours: string, theirs: string): { changes: WordChange[]; keepsObjects: boolean } {
  const changes: WordChange[] = [];
  let keepsObjects = false;
  for (const { from, removed, added } of wordDiff(ours, theirs)) {
    const text = added.replaceAll(OBJECT, '');
    if (!removed.includes(OBJECT)) {
      if (removed !== text) changes.push({ from, to: from + removed.length, text });
      continue;
    }
    const pieces = removed.split(OBJECT);
    // A field that has become words says what it said.
    const isFieldInWords = pieces.every((p) => p.trim() === '') && pieces.length === 2 && text.trim() !== '' && !added.includes(OBJECT);
    if (isFieldInWords) continue;
    keepsObjects ||= !added.includes(OBJECT) && pieces.some((p) => p !== '');
    let start = from;
    pieces.forEach((piece, i) => {
      const put = i === 0 ? text : '';
      if (piece || put) changes.push({ from: start, to: start + piece.length, text: put });
      start += piece.length + 1;
    });
  }
  return { changes: changes.filter((c) => ours.slice(c.from, c.to) !== c.text), keepsObjects };
}

/** A text with its changes made. */
function changed(text: string, changes: readonly WordChange[]): string {
  let out = text;
  for (const { from, to, text: put } of [...changes].reverse()) out = out.slice(0, from) + put + out.slice(to);
  return out;
}

/** For people: what is no letter is a sign that something stands there; offsets stay what they are. */
const shown = (text: string): string => text.replaceAll(OBJECT, '▫');
