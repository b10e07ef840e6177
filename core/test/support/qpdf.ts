import { execFileSync } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

export type Json = Record<string, unknown>;

/** Runs a program of poppler or qpdf on a file, in a folder of its own that it may write to; gives what it prints. */
export async function withPdf<T>(bytes: Uint8Array, work: (file: string, folder: string) => T | Promise<T>): Promise<T> {
  const folder = await mkdtemp(join(tmpdir(), 'folio-test-'));
  try {
    const file = join(folder, 'a.pdf');
    await writeFile(file, bytes);
    return await work(file, folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The objects of a file as qpdf reads them (its JSON, version 2), which has found nothing wrong with it. */
export const objectsSeenByQpdf = (bytes: Uint8Array): Promise<Map<string, Json>> =>
  withPdf(bytes, (file) => {
    execFileSync('qpdf', ['--check', file], { stdio: 'pipe' });
    const { qpdf } = JSON.parse(execFileSync('qpdf', ['--json=2', file], { encoding: 'utf8', maxBuffer: 2 ** 28 })) as {
      qpdf: [Json, Json];
    };
    const all = Object.entries(qpdf[1]) as [string, { value?: Json; stream?: { dict: Json } }][];
    return new Map(all.map(([key, o]) => [key.replace(/^obj:/, ''), o.stream?.dict ?? o.value ?? {}]));
  });
