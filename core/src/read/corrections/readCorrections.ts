import { createHash } from 'node:crypto';
import { diffWordsWithSpace } from 'diff';
import type { Folio } from '../../folio/folio.ts';
import type { Paragraph, Story } from '../../folio/story.ts';
import { OBJECT, plainText, readText } from '../../folio/text.ts';
import { FolioError } from '../../ports/ports.ts';
import type { ArchiveLimits } from '../limits.ts';
import type { Correction, Corrections, WordChange } from '../../edit/correction.ts';
import { DIVIDED, docxTexts } from './docxTexts.ts';

/**
 * What colleagues have changed in a text document that was written from a document: paragraph by paragraph, old and new. Nothing is
 * taken yet. Throws a FolioError where the file is of another document, or none.
 */
export async function readCorrections(folio: Folio, file: string, limits: ArchiveLimits): Promise<Corrections> {
  const read = await docxTexts(file, limits);
  if (read.document !== folio.head.id)
    throw new FolioError('corrections.other', 'The file was written from another document.', 'Open that document, or choose another file.');
  const at = new Map<string, { story: Story; paragraph: Paragraph }>();
  for (const story of Object.values(folio.stories))
    for (const block of Object.values(story.blocks)) if (block.kind === 'paragraph') at.set(block.id, { story, paragraph: block });
  const out: Corrections = { corrections: [], added: [], gone: [] };
  const ids = new Map<string, string>();
  for (const { id, bookmark, text } of read.listed) {
    ids.set(bookmark, id);
    const ours = at.get(id);
    if (!ours) continue;
    const theirs = read.texts.get(bookmark);
    if (theirs === undefined) {
      if (plainText(ours.paragraph.content).trim()) out.gone.push({ paragraph: id, text: readText(ours.paragraph) });
      continue;
    }
    const correction = correctionOf(ours.story, ours.paragraph, theirs, text);
    if (correction) out.corrections.push(correction);
  }
  for (const { after, text } of read.unknown) out.added.push({ after: after === null ? null : (ids.get(after) ?? null), text });
  return out;
}

/** What is another in a paragraph; null where nothing is. `written`: a sign of what its text was when the file was written. */
function correctionOf(story: Story, paragraph: Paragraph, theirs: string, written: string): Correction | null {
  const ours = plainText(paragraph.content);
  const { changes, keepsObjects } = changesBetween(ours, theirs.replaceAll(DIVIDED, '\n'));
  if (!changes.length) return null;
  return {
    story: story.id,
    paragraph: paragraph.id,
    before: shown(ours),
    after: shown(changed(ours, changes)),
    changes,
    changedHere: createHash('sha256').update(readText(paragraph)).digest('hex').slice(0, 16) !== written,
    keepsObjects,
  };
}

/** Words that differ. What is no letter stays where it is: a file may have it as words, or have lost it. */
export function changesBetween(ours: string, theirs: string): { changes: WordChange[]; keepsObjects: boolean } {
  const changes: WordChange[] = [];
  let keepsObjects = false;
  let at = 0;
  let removed = '';
  let added = '';
  const close = (): void => {
    const text = added.replaceAll(OBJECT, '');
    const from = at - removed.length;
    if (removed.includes(OBJECT)) {
      const pieces = removed.split(OBJECT);
      // A field that has become words says what it said.
      const isFieldInWords = pieces.every((p) => p.trim() === '') && pieces.length === 2 && text.trim() !== '' && !added.includes(OBJECT);
      keepsObjects ||= !isFieldInWords && !added.includes(OBJECT) && pieces.some((p) => p !== '');
      if (!isFieldInWords) {
        let start = from;
        pieces.forEach((piece, i) => {
          const put = i === 0 ? text : '';
          if (piece || put) changes.push({ from: start, to: start + piece.length, text: put });
          start += piece.length + 1;
        });
      }
    } else if (removed !== text) changes.push({ from, to: at, text });
    removed = added = '';
  };
  for (const part of diffWordsWithSpace(ours, theirs)) {
    if (part.removed) {
      removed += part.value;
      at += part.value.length;
    } else if (part.added) added += part.value;
    else {
      if (removed || added) close();
      at += part.value.length;
    }
  }
  if (removed || added) close();
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
