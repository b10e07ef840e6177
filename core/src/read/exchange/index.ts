import { open } from 'node:fs/promises';
import type { Inbound } from '../../language/exchange.ts';
import { FolioError } from '../../ports/ports.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import { csvReader } from './csv.ts';
import { docxColumnsReader } from './docxColumns.ts';
import type { ExchangeReader } from './exchangeReader.ts';
import { xmlReader } from './its.ts';
import { poReader } from './po.ts';
import { tmxReader } from './tmx.ts';
import { xliff12Reader } from './xliff12.ts';
import { xliff21Reader } from './xliff21.ts';
import { xlsxReader } from './xlsx.ts';

/** Every format that translations come back in. A new one is a file here and a line below. */
export const EXCHANGE_READERS: readonly ExchangeReader[] = [
  xliff12Reader,
  xliff21Reader,
  xlsxReader,
  tmxReader,
  poReader,
  csvReader,
  xmlReader,
  docxColumnsReader,
];

/** Reads a file that a translator sent back, by what its name says and, where that is not enough, its beginning. */
export async function readExchange(file: string, name: string, limits: ArchiveLimits): Promise<Inbound> {
  const lower = name.toLowerCase();
  const fitting = EXCHANGE_READERS.filter((r) => r.extensions.some((e) => lower.endsWith(e)));
  if (!fitting.length)
    throw new FolioError(
      'exchange.kind',
      `“${name}” is of no kind that translations come back in.`,
      `Choose a file ending in ${[...new Set(EXCHANGE_READERS.flatMap((r) => r.extensions))].join(', ')}.`,
    );
  if (fitting.length === 1) return fitting[0]!.read(file, limits);
  const beginning = await beginningOf(file);
  const reader = fitting.find((r) => r.isOfThis?.(beginning));
  if (!reader)
    throw new FolioError('exchange.kind', `“${name}” is not what its ending says.`, 'Choose the file that the translator sent back.');
  return reader.read(file, limits);
}

async function beginningOf(file: string): Promise<string> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(4096), 0, 4096, 0);
    const bytes = buffer.subarray(0, bytesRead);
    return new TextDecoder(bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : bytes[0] === 0xfe ? 'utf-16be' : 'utf-8').decode(bytes);
  } finally {
    await handle.close();
  }
}

export { readTerms } from './tbx.ts';
export { readMemory } from './tmx.ts';
