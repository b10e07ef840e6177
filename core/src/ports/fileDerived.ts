import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readFile, readdir, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { DerivedStore } from './ports.ts';

/** Each file begins with the SHA-256 of the rest: one that was cut off or damaged is made again. */
const SUM_BYTES = 32;
const sumOf = (bytes: Uint8Array): Buffer => createHash('sha256').update(bytes).digest();

/** Derived work as files; when the folder outgrows its limit, what was used longest ago goes first. */
export class FileDerived implements DerivedStore {
  private written = 0;

  constructor(
    private readonly folder: string,
    private readonly limitBytes = 512 * 2 ** 20,
  ) {}

  private path(key: string): string {
    return join(this.folder, createHash('sha256').update(key).digest('hex'));
  }

  async get(key: string): Promise<Uint8Array | undefined> {
    try {
      const whole = new Uint8Array(await readFile(this.path(key)));
      const bytes = whole.subarray(SUM_BYTES);
      if (!sumOf(bytes).equals(whole.subarray(0, SUM_BYTES))) return undefined;
      await utimes(this.path(key), new Date(), new Date());
      return bytes;
    } catch {
      return undefined;
    }
  }

  async put(key: string, bytes: Uint8Array): Promise<void> {
    const temporary = join(this.folder, `tmp-${randomUUID()}`);
    try {
      await mkdir(this.folder, { recursive: true });
      await writeFile(temporary, [sumOf(bytes), bytes]);
      await rename(temporary, this.path(key));
    } catch {
      // What cannot be kept, on a disk that is full, is made again: nothing fails for it.
      return rm(temporary, { force: true }).catch(() => undefined);
    }
    this.written += bytes.length;
    if (this.written > this.limitBytes / 8) await this.trim();
  }

  private async trim(): Promise<void> {
    this.written = 0;
    const names = await readdir(this.folder);
    const files = (
      await Promise.all(names.map(async (name) => ({ name, info: await stat(join(this.folder, name)).catch(() => null) })))
    ).filter((f) => f.info);
    let total = files.reduce((sum, f) => sum + f.info!.size, 0);
    for (const f of files.sort((a, b) => a.info!.mtimeMs - b.info!.mtimeMs)) {
      if (total <= this.limitBytes) break;
      await rm(join(this.folder, f.name), { force: true });
      total -= f.info!.size;
    }
  }
}
