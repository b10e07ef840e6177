import type { Corrections } from '../../edit/correction.ts';
import type { Folio } from '../../folio/folio.ts';
import { readArchive } from '../../packages/archive.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { paragraphsOf, refuseOther, toldByParts } from './corrected.ts';
import { DIVIDED, docxTexts } from './docxTexts.ts';
import { odpTexts } from './odpTexts.ts';
import { odtCorrections } from './odtCorrections.ts';
import { slideCorrections } from './slideCorrections.ts';
import { slideTexts } from './slideTexts.ts';

/**
 * What colleagues have changed in a file that was written from a document: paragraph by paragraph, old and new. Nothing is taken yet.
 * Throws a FolioError where the file is of another document, or none.
 */
export async function readCorrections(folio: Folio, file: string, limits: ArchiveLimits): Promise<Corrections> {
  for await (const { path } of readArchive(file, limits)) {
    if (path === 'ppt/presentation.xml') return slideCorrections(folio, await slideTexts(file, limits));
    if (path === 'content.xml')
      return (await isPresentation(file, limits))
        ? slideCorrections(folio, await odpTexts(file, limits))
        : odtCorrections(folio, file, limits);
  }
  return docxCorrections(folio, file, limits);
}

/** Packages of OpenDocument say what they are in a file of its own (part 2, 3.3). */
async function isPresentation(file: string, limits: ArchiveLimits): Promise<boolean> {
  for await (const entry of readArchive(file, limits)) {
    if (entry.path !== 'mimetype' || entry.size > 200) continue;
    const chunks: Buffer[] = [];
    for await (const chunk of (await entry.open()) as AsyncIterable<Buffer>) chunks.push(chunk);
    return Buffer.concat(chunks).toString('utf8').includes('.presentation');
  }
  return false;
}

async function docxCorrections(folio: Folio, file: string, limits: ArchiveLimits): Promise<Corrections> {
  const read = await docxTexts(file, limits);
  refuseOther(folio, read.document);
  const at = paragraphsOf(folio);
  const out: Corrections = { corrections: [], added: [], gone: [] };
  const ids = new Map<string, string>();
  const parts = read.listed.map(({ id, bookmark, text: sign, part }) => {
    ids.set(bookmark, id);
    return { id, sign, part, words: read.texts.get(bookmark)?.replaceAll(DIVIDED, '\n') };
  });
  toldByParts(out, at, parts);
  for (const { after, text } of read.unknown) out.added.push({ after: after === null ? null : (ids.get(after) ?? null), text });
  return out;
}
