import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, readdir, readFile, rename, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import { gunzipSync } from 'fflate';

/** Packages of Debian in which people have left drawings and presentations; small ones, for documentation. */
const PACKAGES = [
  'aprx',
  'caja-actions-common',
  'cyclonedds-doc',
  'golang-github-gabriel-vasile-mimetype-dev',
  'libbobcat-dev',
  'libmapsforge-java-doc',
  'libtrompeloeil-cpp-dev',
  'mummer-doc',
  'python-py7zr-doc',
  'simrisc',
  'songwrite',
  'sqlite3-doc',
  'tiatracker',
];
const DRAWING = /\.(od[gp]|ot[gp])(\.gz)?$/;

export interface FoundFile {
  name: string;
  bytes: Uint8Array;
}

/**
 * Drawings and presentations by other people, fetched from Debian's packages and unpacked into a folder for temporary files;
 * none where this machine has no such packages to fetch from.
 */
export async function foundFiles(): Promise<FoundFile[]> {
  const folder = join(tmpdir(), 'folio-found-drawings');
  const ready = join(folder, 'ready');
  if (!existsSync(ready)) {
    const work = join(folder, `work-${process.pid}`);
    await mkdir(work, { recursive: true });
    try {
      const run = promisify(execFile);
      // Where the lists are old, a package may have moved on: then they are fetched anew.
      await run('apt-get', ['download', '-q', ...PACKAGES], { cwd: work }).catch(async () => {
        await run('apt-get', ['update', '-q']);
        return run('apt-get', ['download', '-q', ...PACKAGES], { cwd: work });
      });
      for (const deb of (await readdir(work)).filter((f) => f.endsWith('.deb'))) await run('dpkg-deb', ['-x', deb, 'files'], { cwd: work });
      await rename(join(work, 'files'), ready).catch(() => undefined);
    } catch {
      return [];
    } finally {
      await rm(work, { recursive: true, force: true });
    }
  }
  const out: FoundFile[] = [];
  for (const entry of await readdir(ready, { recursive: true }))
    if (DRAWING.test(entry)) {
      const bytes = new Uint8Array(await readFile(join(ready, entry)));
      const packed = entry.endsWith('.gz');
      out.push({ name: basename(entry).replace(/\.gz$/, ''), bytes: packed ? gunzipSync(bytes) : bytes });
    }
  return out.sort((a, b) => (a.name < b.name ? -1 : 1));
}
