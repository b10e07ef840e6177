import { metaOf } from '../opendocument/drawing.ts';
import { packOdf } from '../opendocument/odfPackage.ts';
import { OdfFiles } from '../opendocument/placedFiles.ts';
import { promptsIn } from '../office/promptedJob.ts';
import { outputFile, streamedFile } from '../assets/outputFile.ts';
import type { OutputFile, WriteJob } from '../writer.ts';
import { laidParts } from './laidOut.ts';
import { paragraphSigns } from './paragraphSigns.ts';
import { runningParts } from './runningText.ts';
import type { OdtSettings } from './settings.ts';

const MEDIA_TYPE = 'application/vnd.oasis.opendocument.text';

export const fileName = ({ template }: Pick<OdtSettings, 'template'>): string => (template ? 'document.ott' : 'document.odt');

/** Writes a text document of OpenDocument (OASIS OpenDocument 1.3; ISO/IEC 26300): the whole text in the order in which it is read, or page by page as laid out. */
export async function* writeOdt(job: WriteJob<OdtSettings>): AsyncGenerator<OutputFile> {
  const { folio, settings } = job;
  const files = new OdfFiles(settings.pictures);
  const { content, styles, written } = await (settings.way === 'laid' ? laidParts(job, files) : runningParts(job, files));
  const mediaType = settings.template ? `${MEDIA_TYPE}-template` : MEDIA_TYPE;
  const about = { title: settings.title || folio.head.metadata.title, language: settings.language || folio.head.metadata.language };
  // What is filled in elsewhere does not come back.
  const signs = promptsIn(job) ? [] : paragraphSigns(folio, written);
  const parts = { 'content.xml': content, 'styles.xml': styles, 'meta.xml': metaOf(folio, about) };
  yield streamedFile(fileName(settings), mediaType, packOdf(mediaType, parts, [...signs, ...files.inside.values()]));
  for (const { path, mediaType: type, content: bytes } of files.beside.values()) yield outputFile(path, type, bytes as Uint8Array);
}
