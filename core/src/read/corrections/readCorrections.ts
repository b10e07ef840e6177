import type { Corrections } from '../../edit/correction.ts';
import type { Folio } from '../../folio/folio.ts';
import { plainText, readText } from '../../folio/text.ts';
import { textSign } from '../../ports/textSign.ts';
import { readArchive } from '../archive.ts';
import type { ArchiveLimits } from '../limits.ts';
import { changesBetween, correctionOf, paragraphsOf, refuseOther } from './corrected.ts';
import { DIVIDED, docxTexts } from './docxTexts.ts';
import { odtCorrections } from './odtCorrections.ts';
import { slideCorrections } from './slideCorrections.ts';

/**
 * What colleagues have changed in a file that was written from a document: paragraph by paragraph, old and new. Nothing is taken yet.
 * Throws a FolioError where the file is of another document, or none.
 */
export async function readCorrections(folio: Folio, file: string, limits: ArchiveLimits): Promise<Corrections> {
  for await (const { path } of readArchive(file, limits)) {
    if (path === 'ppt/presentation.xml') return slideCorrections(folio, file, limits);
    if (path === 'content.xml') return odtCorrections(folio, file, limits);
  }
  return docxCorrections(folio, file, limits);
}

async function docxCorrections(folio: Folio, file: string, limits: ArchiveLimits): Promise<Corrections> {
  const read = await docxTexts(file, limits);
  refuseOther(folio, read.document);
  const at = paragraphsOf(folio);
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
    const told = changesBetween(plainText(ours.paragraph.content), theirs.replaceAll(DIVIDED, '\n'));
    const changedHere = textSign(readText(ours.paragraph)) !== text;
    if (told.changes.length) out.corrections.push(correctionOf(ours.story, ours.paragraph, { ...told, changedHere }));
  }
  for (const { after, text } of read.unknown) out.added.push({ after: after === null ? null : (ids.get(after) ?? null), text });
  return out;
}
