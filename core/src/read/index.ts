import { FolioError } from '../ports/ports.ts';
import { lookThrough } from './media/lookThrough.ts';
import { efolioReader } from './efolio/readPackage.ts';
import { odfReader } from './odf/odfReader.ts';
import type { LoadedFolio, ReadJob, Reader } from '../intake/reader.ts';

/** Every input format. A new one is a folder here and a line below. */
export const READERS: readonly Reader[] = [efolioReader, odfReader];

/** Reads a file by the format its name says. */
export async function readFolio(name: string, job: ReadJob): Promise<LoadedFolio> {
  const reader = READERS.find((r) => r.extensions.some((e) => name.toLowerCase().endsWith(e)));
  if (!reader)
    throw new FolioError(
      'format.unknown',
      `"${name}" is of no kind that can be brought in.`,
      `Choose a file ending in ${READERS.flatMap((r) => r.extensions).join(', ')}.`,
    );
  return lookThrough(await reader.read({ ...job, name }), job);
}

export { PageSketch } from '../intake/pageSketch.ts';
export { readFontFile } from './font/readFontFile.ts';
export type { FontFacts } from './font/readFontFile.ts';
export { readArchive } from '../packages/archive.ts';
export { DEFAULT_LIMITS } from '../packages/limits.ts';
export type { ArchiveLimits } from '../packages/limits.ts';
export type { LoadedFolio, ReadJob, Reader } from '../intake/reader.ts';
export { FIRST_ORIGIN, originOf, recordOf, recordPath } from '../intake/intakeRecord.ts';
export type { IntakeRecord } from '../intake/intakeRecord.ts';
export { takeFile } from './media/takeFile.ts';
export { EXCHANGE_READERS, readExchange, readMemory, readTerms } from './exchange/index.ts';
export { readCorrections } from './corrections/readCorrections.ts';
