import { createWriteStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { packFolio } from '@elastic-folio/core/write';
import type { Services } from '../services.ts';
import { importFile } from './importDocument.ts';

/** Puts the sample documents on an empty shelf, through the same door as any other document. */
export async function loadSamples(s: Services): Promise<void> {
  const [row] = await s.db.query<{ n: number }>('SELECT count(*)::int AS n FROM folios');
  if (row!.n > 0) return;
  const { samples } = await import('@elastic-folio/demo');
  const folder = await mkdtemp(join(tmpdir(), 'folio-samples-'));
  try {
    for (const sample of (await samples()).reverse()) {
      const name = `${sample.folio.head.id}.efolio`;
      await pipeline(packFolio(sample.folio, sample.files, sample.blobs), createWriteStream(join(folder, name)));
      await importFile(
        join(folder, name),
        name,
        join(s.config.data, 'incoming', `sample-${sample.folio.head.id}`),
        s.blobs,
        s.pool,
        s.documents,
      );
      await rm(join(s.config.data, 'incoming', `sample-${sample.folio.head.id}`), { recursive: true, force: true });
    }
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
