import { execFile } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import { memoryUnitsOf } from '@elastic-folio/core/language';
import { SAMPLE_TERMS } from '@elastic-folio/demo';
import type { Services } from '../services.ts';
import { importFile } from './importDocument.ts';

/** Puts the sample documents on an empty shelf, through the same door as any other document. */
export async function loadSamples(s: Services): Promise<void> {
  const [row] = await s.db.query<{ n: number }>('SELECT count(*)::int AS n FROM folios');
  if (row!.n > 0) return;
  const folder = await mkdtemp(join(tmpdir(), 'folio-samples-'));
  try {
    const { stdout } = await promisify(execFile)(process.execPath, [join(s.config.root, 'dist', 'samples-process.mjs'), folder, 'efolio']);
    // The shelf shows what came last at its top.
    for (const path of (JSON.parse(stdout) as { path: string }[]).map((f) => f.path).reverse()) {
      const name = basename(path);
      const staging = join(s.config.data, 'incoming', `sample-${name}`);
      const { id } = await importFile(path, name, staging, s.blobs, s.pool, s.documents);
      await remember(s, id);
      await rm(staging, { recursive: true, force: true });
    }
    for (const { source, target, terms } of SAMPLE_TERMS) await s.terms.take(source, target, terms);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** What the samples are translated into is in the memory, as if it had been confirmed here. */
async function remember(s: Services, id: string): Promise<void> {
  const { head, editions } = (await s.documents.get(id)).folio;
  for (const { language, units } of Object.values(editions))
    await s.memory.add(head.metadata.language, language, memoryUnitsOf(units, head.metadata));
}
