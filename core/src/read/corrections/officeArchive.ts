import { readPart } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { FolioError } from '../../ports/ports.ts';
import { readArchive } from '../../packages/archive.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { xmlFault } from '../../folio/xmlFault.ts';

/** The parts of an office file that have a name of some kind, as XML. Throws a FolioError where one of them cannot be read. */
export async function partsOf(file: string, limits: ArchiveLimits, wanted: RegExp): Promise<Map<string, Node>> {
  const parts = new Map<string, Node>();
  for await (const entry of readArchive(file, limits)) {
    if (!wanted.test(entry.path)) continue;
    if (entry.size > limits.partBytes) throw notOurs('is too large to be read');
    const chunks: Buffer[] = [];
    for await (const chunk of (await entry.open()) as AsyncIterable<Buffer>) chunks.push(chunk);
    parts.set(entry.path, parsed(entry.path, Buffer.concat(chunks).toString('utf8')));
  }
  return parts;
}

function parsed(path: string, xml: string): Node {
  try {
    return readPart(xml);
  } catch (error) {
    throw new FolioError(
      'corrections.damaged',
      `${path} of the file cannot be read: ${xmlFault(error as Error)}.`,
      'Open it in the program it came from and save it again.',
    );
  }
}

export const notOurs = (why: string): FolioError =>
  new FolioError(
    'corrections.unknown',
    `The file ${why}.`,
    'Choose a text document or a deck of slides that was written from this document here and worked on since.',
  );
