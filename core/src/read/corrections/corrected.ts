import type { Correction, Corrections, WordChange } from '../../edit/correction.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import { OBJECT, plainText, readText } from '../../folio/text.ts';
import { FolioError } from '../../ports/ports.ts';
import { textSign } from '../../ports/textSign.ts';
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

/** What became of the words of a paragraph, or of a part of it, in its own offsets. */
interface Told {
  changes: WordChange[];
  keepsObjects: boolean;
  changedHere: boolean;
}

/** Changes of paragraphs, each of which may stand in several parts; of what stands there more than once, the first that is another. */
export class ToldChanges {
  private readonly byParagraph = new Map<string, Told>();

  constructor(private readonly at: ReturnType<typeof paragraphsOf>) {}

  add(id: string, { changes, keepsObjects, changedHere }: Told): void {
    const known = this.byParagraph.get(id) ?? { changes: [], keepsObjects: false, changedHere };
    const isKnown = (c: WordChange): boolean => known.changes.some((k) => k.from === c.from || (c.from < k.to && k.from < c.to));
    if (changes.some(isKnown)) return;
    this.byParagraph.set(id, {
      changes: [...known.changes, ...changes].sort((a, b) => a.from - b.from),
      keepsObjects: known.keepsObjects || keepsObjects,
      changedHere,
    });
  }

  list(): Correction[] {
    return [...this.byParagraph].flatMap(([id, told]) => {
      const ours = this.at.get(id);
      return ours && told.changes.length ? [correctionOf(ours.story, ours.paragraph, told)] : [];
    });
  }
}

/** A paragraph, or a part of one, that was written into a file, and its words there now; `sign`: that of the whole when it was written. */
export interface WrittenPart {
  id: string;
  sign: string;
  part: { from: number; to: number } | null;
  words: string | undefined;
}

/** Tells what became of paragraphs that a file has whole, or in parts. */
export function toldByParts(out: Corrections, at: ReturnType<typeof paragraphsOf>, written: readonly WrittenPart[]): void {
  const told = new ToldChanges(at);
  const there = new Set(written.flatMap((w) => (w.words === undefined ? [] : [w.id])));
  const gone = new Set<string>();
  for (const { id, sign, part, words: now } of written) {
    const ours = at.get(id);
    if (!ours) continue;
    const plain = plainText(ours.paragraph.content);
    // Where a part of several is gone, so are its words.
    const words = now ?? (there.has(id) ? '' : undefined);
    if (words === undefined) {
      if (plain.trim() && !gone.has(id)) out.gone.push({ paragraph: id, text: readText(ours.paragraph) });
      gone.add(id);
      continue;
    }
    const changedHere = textSign(readText(ours.paragraph)) !== sign;
    // Where a part stood in words that are others here is not known any more.
    if (part && changedHere) {
      if (words.trim() && !plain.includes(words)) out.added.push({ after: id, text: words.replaceAll(OBJECT, '').trim() });
      continue;
    }
    const { from, to } = part ?? { from: 0, to: plain.length };
    const { changes, keepsObjects } = changesBetween(plain.slice(from, to), words);
    const moved = changes.map((c) => ({ ...c, from: c.from + from, to: c.to + from }));
    told.add(id, { changes: moved, keepsObjects, changedHere });
  }
  for (const one of told.list()) out.corrections.push(one);
}

/** A change of a paragraph as it is shown and taken. */
function correctionOf(
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
