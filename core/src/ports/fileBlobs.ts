import { createHash, randomUUID, webcrypto } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { access, copyFile, mkdir, open, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { BlobStore } from './ports.ts';

/** Files up to this are hashed whole, beside the thread that asked for it; larger ones as they pass. */
const WHOLE = 64 * 2 ** 20;

/** Blobs as files in a folder: written under a temporary name, synced, then renamed to their hash. */
export class FileBlobs implements BlobStore {
  /** Folders that are known to be there. */
  private readonly folders = new Set<string>();
  /** What is still being written, by its name. */
  private readonly writing = new Map<string, Promise<void>>();
  /** Syncs wait for one another: the first takes most of what the others ask for with it, and the threads stay free for reading. */
  private syncing: Promise<unknown> = Promise.resolve();

  constructor(readonly folder: string) {}

  path(sha256: string): string {
    if (!/^[0-9a-f]{64}$/.test(sha256)) throw new Error('not a blob name');
    return join(this.folder, sha256.slice(0, 2), sha256);
  }

  async put(content: Readable | Uint8Array): Promise<{ sha256: string; bytes: number }> {
    if (content instanceof Readable)
      return this.written(async (temporary) => {
        const done = await passed(content, temporary);
        await this.sync(temporary);
        return done;
      });
    const { stored, ...file } = await this.begin(content);
    await stored;
    return file;
  }

  async begin(content: Uint8Array): Promise<{ sha256: string; bytes: number; stored: Promise<void> }> {
    const sha256 = await digest(content);
    return { sha256, bytes: content.length, stored: this.store(sha256, content) };
  }

  /** Writes what is in memory under its name; what is being written already is not written twice. */
  private store(sha256: string, content: Uint8Array): Promise<void> {
    const before = this.writing.get(sha256);
    if (before) return before;
    const done = this.written(async (temporary) => {
      await writeFile(temporary, content);
      await this.sync(temporary);
      return { sha256, bytes: content.length };
    }).then(
      () => void this.writing.delete(sha256),
      (error: unknown) => {
        this.writing.delete(sha256);
        throw error;
      },
    );
    this.writing.set(sha256, done);
    return done;
  }

  private sync(file: string): Promise<void> {
    const done = this.syncing.then(() => synced(file));
    this.syncing = done.catch(() => undefined);
    return done;
  }

  async putFile(file: string): Promise<{ sha256: string; bytes: number }> {
    if ((await stat(file)).size > WHOLE) return this.put(createReadStream(file));
    return this.written(async (temporary) => {
      await copyFile(file, temporary);
      await this.sync(temporary);
      // The copy is what is hashed: the file may be written to meanwhile.
      const bytes = await readFile(temporary);
      return { sha256: await digest(bytes), bytes: bytes.length };
    });
  }

  /** Has a file written under a temporary name and gives it its own; what went wrong leaves nothing. */
  private async written(
    work: (temporary: string) => Promise<{ sha256: string; bytes: number }>,
  ): Promise<{ sha256: string; bytes: number }> {
    await this.ensure(join(this.folder, 'tmp'));
    const temporary = join(this.folder, 'tmp', randomUUID());
    try {
      const done = await work(temporary);
      await this.ensure(join(this.folder, done.sha256.slice(0, 2)));
      await rename(temporary, this.path(done.sha256));
      return done;
    } catch (error) {
      await rm(temporary, { force: true });
      throw error;
    }
  }

  private async ensure(folder: string): Promise<void> {
    if (this.folders.has(folder)) return;
    await mkdir(folder, { recursive: true });
    this.folders.add(folder);
  }

  async has(sha256: string): Promise<boolean> {
    await this.writing.get(sha256);
    return access(this.path(sha256)).then(
      () => true,
      () => false,
    );
  }

  async read(sha256: string): Promise<Uint8Array> {
    await this.writing.get(sha256);
    return new Uint8Array(await readFile(this.path(sha256)));
  }

  stream(sha256: string): Readable {
    return createReadStream(this.path(sha256));
  }
}

/** Hashed by the runtime's own threads. */
const digest = async (bytes: Uint8Array): Promise<string> => Buffer.from(await webcrypto.subtle.digest('SHA-256', bytes)).toString('hex');

async function synced(file: string): Promise<void> {
  const handle = await open(file, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

async function passed(content: Readable, temporary: string): Promise<{ sha256: string; bytes: number }> {
  const hash = createHash('sha256');
  let bytes = 0;
  const meter = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      bytes += chunk.length;
      done(null, chunk);
    },
  });
  await pipeline(content, meter, createWriteStream(temporary));
  return { sha256: hash.digest('hex'), bytes };
}
