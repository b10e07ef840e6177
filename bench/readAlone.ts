// Reads one presentation in a process of its own, so that its memory is told apart from all else: prints MiB as JSON.
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { FileBlobs, sharpPictures } from '@elastic-folio/core/node';
import { DEFAULT_LIMITS, readFolio } from '@elastic-folio/core/read';

const folder = await mkdtemp(join(tmpdir(), 'folio-read-'));
try {
  await readFolio('large.odp', { file: process.argv[2]!, blobs: new FileBlobs(folder), pictures: sharpPictures, limits: DEFAULT_LIMITS });
  console.log(JSON.stringify({ peak: process.resourceUsage().maxRSS / 1024 }));
} finally {
  await rm(folder, { recursive: true, force: true });
}
