import { readFile, stat } from 'node:fs/promises';
import type { Inbound } from '../../language/exchange.ts';
import { FolioError } from '../../ports/ports.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';

/** One format for translators, in: named as its writer is. */
export interface ExchangeReader {
  id: string;
  extensions: readonly string[];
  /** For formats that share an ending: whether a file is of this one, by its beginning. */
  isOfThis?(beginning: string): boolean;
  read(file: string, limits: ArchiveLimits): Promise<Inbound>;
}

/** The text of a file, in the encoding that its first bytes say. Throws a FolioError where it is too large, or no text. */
async function textOfFile(file: string, limits: ArchiveLimits): Promise<string> {
  const { size } = await stat(file);
  if (size > limits.partBytes)
    throw new FolioError(
      'exchange.large',
      `The file is larger than ${Math.round(limits.partBytes / 2 ** 20)} MiB.`,
      'Ask for it in several files.',
    );
  const bytes = await readFile(file);
  const encoding = bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : 'utf-8';
  try {
    return new TextDecoder(encoding, { fatal: true }).decode(bytes);
  } catch {
    throw new FolioError('exchange.encoding', 'The file is in an encoding that cannot be told.', 'Ask for it in UTF-8.');
  }
}

/** A reader of a format that is text, from what makes sense of its text. */
export const readerOfText = (reader: Omit<ExchangeReader, 'read'>, read: (text: string) => Inbound | Promise<Inbound>): ExchangeReader => ({
  ...reader,
  read: async (file, limits) => read(await textOfFile(file, limits)),
});
