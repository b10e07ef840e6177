import { createHash } from 'node:crypto';
import { createReadStream, existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { samples } from '@elastic-folio/demo';
import type { Sample } from '@elastic-folio/demo';

const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..', '..');
/** What samples are made from. */
const SOURCES = ['demo/src', 'core/src'];

/** Changes whenever a sample could be another one. */
async function signOfSources(): Promise<string> {
  const hash = createHash('sha256');
  for (const folder of SOURCES)
    for (const file of (await readdir(join(root, folder), { recursive: true })).filter((f) => f.endsWith('.ts')).sort())
      hash.update(file).update(await readFile(join(root, folder, file)));
  return hash.digest('hex').slice(0, 16);
}

interface Kept {
  folio: Sample['folio'];
  files: [string, { sha256: string; bytes: number }][];
}

/**
 * The samples, drawn once for all test files of a run: they lie in a folder for temporary files, named for what they are made from. That
 * they are the same each time they are drawn is asked elsewhere.
 */
export async function keptSamples(): Promise<Sample[]> {
  const folder = join(tmpdir(), `folio-samples-${await signOfSources()}`);
  if (!existsSync(folder)) await keep(await samples(), folder);
  const kept = JSON.parse(await readFile(join(folder, 'samples.json'), 'utf8')) as Kept[];
  return kept.map(({ folio, files }) => ({
    folio,
    files: new Map(files),
    blobs: { stream: (sha256) => createReadStream(join(folder, sha256)) },
  }));
}

async function keep(made: readonly Sample[], folder: string): Promise<void> {
  const staging = `${folder}-${process.pid}`;
  await mkdir(staging, { recursive: true });
  for (const { files, blobs } of made)
    for (const { sha256 } of files.values()) await writeFile(join(staging, sha256), blobs.stream(sha256));
  const index: Kept[] = made.map(({ folio, files }) => ({ folio, files: [...files] }));
  await writeFile(join(staging, 'samples.json'), JSON.stringify(index));
  // Another test file may have been first: its folder is as good.
  await rename(staging, folder).catch(() => rm(staging, { recursive: true, force: true }));
}
