import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Sample } from '@elastic-folio/demo';
import type { Folio } from '../../../src/index.ts';
import { comingBack, isTakeable, taken } from '../../../src/language/index.ts';
import type { Inbound, Return } from '../../../src/language/index.ts';
import { DEFAULT_LIMITS } from '../../../src/read/index.ts';
import { readExchange } from '../../../src/read/exchange/index.ts';
import { writeOnly } from '../../support/samples.ts';

export const FORMATS = ['xliff-1.2', 'xliff-2.1', 'xlsx', 'docx-columns', 'tmx', 'po', 'csv', 'xml'] as const;
export type FormatId = (typeof FORMATS)[number];

/** The file of texts that a recipe makes of a document. */
export async function textsOf(
  s: Sample,
  format: FormatId,
  settings: Record<string, unknown> = {},
  folio: Folio = s.folio,
): Promise<{ name: string; bytes: Uint8Array }> {
  const files = await writeOnly(s, format, { pagesToSee: false, ...settings }, folio);
  const [name, bytes] = [...files].find(([path]) => path.startsWith('texts.'))!;
  return { name, bytes };
}

/** Reads a file as it comes back. */
export async function readBytes(name: string, bytes: Uint8Array | string): Promise<Inbound> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-test-'));
  try {
    await writeFile(join(folder, 'back'), bytes);
    return await readExchange(join(folder, 'back'), name, DEFAULT_LIMITS);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The document with everything taken that a file brings. */
export function withAll(folio: Folio, back: Return, by = 'a translator'): Folio {
  const chosen = new Set(back.segments.filter(isTakeable).map((r) => r.id));
  const edition = taken(folio.editions[back.language], back, chosen, by, '2026-03-06T12:00:00.000Z');
  return { ...folio, editions: { ...folio.editions, [back.language]: edition } };
}

export const backInto = (folio: Folio, inbound: Inbound, language: string): Return => comingBack(folio, inbound, language);
