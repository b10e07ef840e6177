import { firstFault } from '../../folio/plainErrors.ts';
import { extname, parse } from 'node:path';
import { Folio } from '../../folio/folio.ts';
import { incoherences } from '../../folio/coherence.ts';
import { allSignsOfPages } from '../../ports/origin.ts';
import { Cancelled, FolioError } from '../../ports/ports.ts';
import type { LoadedFolio, ReadJob, Reader } from '../../intake/reader.ts';
import { DocumentBuilder } from './documentBuilder.ts';
import { FIRST_ORIGIN, recordPath } from '../../intake/intakeRecord.ts';
import type { IntakeRecord } from '../../intake/intakeRecord.ts';
import { openOdf } from './odfPackage.ts';
import type { OdfPackage } from './odfPackage.ts';

const EXTENSIONS = ['.odg', '.odp', '.otg', '.otp', '.fodg', '.fodp'];

/** Reads a drawing or presentation of OpenDocument 1.2 or 1.3 (OASIS; ISO/IEC 26300). */
async function read(job: ReadJob): Promise<LoadedFolio> {
  const extension = extname(job.name ?? job.file).toLowerCase();
  const source = await openOdf(job, extension.startsWith('.f'));
  if (job.signal?.aborted) throw new Cancelled();
  // Kept while the pages are read: it waits for the disk, they for the processor.
  const keeping = job.blobs.putFile(job.file);
  try {
    const document = await makeDocument(source, job, extension, keeping);
    // A file that cannot be read whole is refused, even where no page shows what is wrong.
    await source.files.settle();
    return document;
  } finally {
    await source.files.close();
    // Whatever went wrong, nothing is still being written when the caller hears of it.
    await keeping.catch(() => undefined);
  }
}

async function makeDocument(
  source: OdfPackage,
  job: ReadJob,
  extension: string,
  keeping: Promise<{ sha256: string; bytes: number }>,
): Promise<LoadedFolio> {
  const { folio: input, files, elements, notTaken } = await new DocumentBuilder(source, job).build();
  const checked = Folio.safeParse(input);
  if (!checked.success) {
    throw notReadable(firstFault(checked.error));
  }
  const wrong = incoherences(checked.data)[0];
  if (wrong) throw notReadable(`${wrong.where}: ${wrong.says}`);
  const original = `${FIRST_ORIGIN}/source${EXTENSIONS.includes(extension) ? extension : '.odg'}`;
  files.set(original, await keeping);
  const record: IntakeRecord = {
    format: 'odf',
    mediaType: source.mediaType,
    name: parse(job.name ?? job.file).name,
    source: original,
    elements,
    notTaken,
    pages: allSignsOfPages(checked.data),
  };
  files.set(recordPath(FIRST_ORIGIN), await job.blobs.put(new TextEncoder().encode(JSON.stringify(record))));
  return { folio: checked.data, files };
}

const notReadable = (why: string): FolioError =>
  new FolioError(
    'odf.unmade',
    `The file was read, but no document could be made of it: ${why}.`,
    'Save it again with the program it came from; if that does not help, bring it in page by page.',
  );

export const odfReader: Reader = { id: 'odf', label: 'OpenDocument drawing or presentation', extensions: EXTENSIONS, read };
