import { execFile } from 'node:child_process';
import { mkdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import { SampleFile } from '@elastic-folio/core/api';
import { FolioError } from '@elastic-folio/core/node';
import { z } from 'zod';

/** The sample documents as OpenDocument files, for trying intake: drawn when they are first asked for, in a process of its own. */
export class SampleFiles {
  private made: Promise<SampleFile[]> | null = null;

  constructor(
    private readonly root: string,
    private readonly folder: string,
  ) {}

  list(): Promise<SampleFile[]> {
    return (this.made ??= this.make().catch((error: unknown) => {
      this.made = null;
      throw error;
    }));
  }

  /** Where a sample lies on disk. */
  async path(name: string): Promise<string> {
    if (!(await this.list()).some((s) => s.name === name))
      throw new FolioError('sample.none', `There is no sample called "${name}".`, 'Choose one of the list.');
    return join(this.folder, name);
  }

  private async kept(index: string): Promise<SampleFile[] | null> {
    try {
      const files = z.array(SampleFile).parse(JSON.parse(index));
      for (const { name, bytes } of files) if ((await stat(join(this.folder, name))).size !== bytes) return null;
      return files;
    } catch {
      return null;
    }
  }

  private async make(): Promise<SampleFile[]> {
    const index = join(this.folder, 'samples.json');
    const known = await readFile(index, 'utf8').catch(() => null);
    // What is damaged, or not there, is drawn again.
    const kept = known === null ? null : await this.kept(known);
    if (kept) return kept;
    const work = `${this.folder}-${process.pid}`;
    await mkdir(work, { recursive: true });
    try {
      const { stdout } = await promisify(execFile)(process.execPath, [
        join(this.root, 'dist', 'samples-process.mjs'),
        work,
        'openDocument',
      ]);
      const files = (JSON.parse(stdout) as { path: string; title: string; bytes: number; notHeld: string[] }[]).map(
        ({ path, title, bytes, notHeld }): SampleFile => ({ name: basename(path), title, bytes, notHeld }),
      );
      await writeFile(join(work, 'samples.json'), JSON.stringify(files));
      await rm(this.folder, { recursive: true, force: true });
      await rename(work, this.folder);
      return files;
    } finally {
      await rm(work, { recursive: true, force: true });
    }
  }
}
