import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { access, mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { BlobStore } from './ports.ts';

/** Blobs as files in a folder: written under a temporary name, synced, then renamed to their hash. */
export class FileBlobs implements BlobStore {
  constructor(readonly folder: string) {}

  path(sha256: string): string {
    if (!/^[0-9a-f]{64}$/.test(sha256)) throw new Error('not a blob name');
    return join(this.folder, sha256.slice(0, 2), sha256);
  }

  async put(content: Readable | Uint8Array): Promise<{ sha256: string; bytes: number }> {
    await mkdir(join(this.folder, 'tmp'), { recursive: true });
    const temporary = join(this.folder, 'tmp', randomUUID());
    const hash = createHash('sha256');
    let bytes = 0;
    const meter = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        hash.update(chunk);
        bytes += chunk.length;
        done(null, chunk);
      },
    });
    try {
      await pipeline(
        content instanceof Readable ? content : Readable.from([Buffer.from(content.buffer, content.byteOffset, content.byteLength)]),
        meter,
        createWriteStream(temporary),
      );
      const file = await open(temporary, 'r');
      await file.sync();
      await file.close();
      const sha256 = hash.digest('hex');
      await mkdir(join(this.folder, sha256.slice(0, 2)), { recursive: true });
      await rename(temporary, this.path(sha256));
      return { sha256, bytes };
    } catch (error) {
      await rm(temporary, { force: true });
      throw error;
    }
  }

  async has(sha256: string): Promise<boolean> {
    return access(this.path(sha256)).then(
      () => true,
      () => false,
    );
  }

  async read(sha256: string): Promise<Uint8Array> {
    return new Uint8Array(await readFile(this.path(sha256)));
  }

  stream(sha256: string): Readable {
    return createReadStream(this.path(sha256));
  }
}
