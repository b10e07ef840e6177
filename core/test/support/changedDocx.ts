import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { unzipSync, zipSync } from 'fflate';
import type { Corrections, Folio } from '../../src/index.ts';
import { DEFAULT_LIMITS, readCorrections } from '../../src/read/index.ts';

/** A text document in which a colleague has worked: `work` gets its main part as XML. */
export function changedDocx(bytes: Uint8Array, work: (xml: string) => string, part = 'word/document.xml'): Uint8Array {
  const files = unzipSync(bytes);
  const xml = work(new TextDecoder().decode(files[part]));
  return zipSync({ ...files, [part]: new TextEncoder().encode(xml) }, { level: 1 });
}

export async function corrections(folio: Folio, bytes: Uint8Array): Promise<Corrections> {
  const folder = await mkdtemp(join(tmpdir(), 'corrections-'));
  try {
    const file = join(folder, 'changed.docx');
    await writeFile(file, bytes);
    return await readCorrections(folio, file, DEFAULT_LIMITS);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
