import { Readable } from 'node:stream';
import yazl from 'yazl';

/** A book as one file while it is packed: what has been added is compressed and handed on before more is asked for. */
export class BookPack {
  private readonly zip = new yazl.ZipFile();
  // Equal books make equal files.
  private readonly time = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };

  constructor() {
    // EPUB 3.3, 4.3: the media type first, stored and without anything extra.
    this.zip.addBuffer(Buffer.from('application/epub+zip'), 'mimetype', { ...this.time, compress: false });
  }

  /** Adds a file, and waits until it is packed; files that are packed already are stored. */
  add(path: string, content: Uint8Array | string, stored: boolean): Promise<void> {
    const bytes = typeof content === 'string' ? Buffer.from(content) : Buffer.from(content.buffer, content.byteOffset, content.byteLength);
    return new Promise((done) =>
      this.zip.addReadStreamLazy(path, { ...this.time, compress: !stored, size: bytes.length }, (take) => {
        const stream = Readable.from([bytes]);
        stream.once('end', done);
        take(null, stream);
      }),
    );
  }

  /** The file, as long as `fill` adds to it. Throws what `fill` throws. */
  async *filled(fill: () => Promise<void>): AsyncGenerator<Uint8Array> {
    const output = this.zip.outputStream as Readable;
    const filling = fill().then(
      () => this.zip.end(),
      (error: unknown) => void output.destroy(error as Error),
    );
    for await (const chunk of output) yield chunk as Uint8Array;
    await filling;
  }
}
