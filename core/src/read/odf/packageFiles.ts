import { collect } from '../../packages/archive.ts';
import type { ArchiveEntry } from '../../packages/archive.ts';
import type { ReadJob } from '../../intake/reader.ts';
import { lookInto } from './pictureFile.ts';
import type { Looked } from './pictureFile.ts';

export interface StoredFile {
  sha256: string;
  bytes: number;
  /** What it is, where it is a picture: found while it was in memory. */
  look?: Looked;
}

/** Files up to this are stored from memory. */
const IN_MEMORY = 16 * 2 ** 20;
const PICTURE = /\.(png|jpe?g|gif|webp|svg|tiff?|bmp)$/i;
/** Files that are stored at one time: each waits for its disk, and most of the time would be spent waiting. */
const AT_ONCE = 6;

/**
 * Pictures and fonts of a package: stored as blobs when they are asked for, and pictures from the start on, while the pages are
 * read: these wait for the processor, those for the disk.
 */
export class PackageFiles {
  private readonly stored = new Map<string, Promise<StoredFile>>();
  private readonly waiting: string[] = [];
  private going = 0;
  private readonly writing: Promise<void>[] = [];

  constructor(
    private readonly job: ReadJob,
    private readonly entries: ReadonlyMap<string, ArchiveEntry>,
    private readonly closing: () => void,
  ) {
    for (const one of [...entries.keys()].filter((path) => PICTURE.test(path) && !path.startsWith('Thumbnails/')).reverse())
      this.waiting.push(one);
    for (let i = 0; i < AT_ONCE; i++) this.next();
  }

  /** A file of the package; null where it has none of that name. Fails where it is damaged or hostile. */
  async get(path: string): Promise<StoredFile | null> {
    const entry = this.entries.get(path);
    if (!entry) return null;
    let stored = this.stored.get(path);
    if (!stored) this.stored.set(path, (stored = this.store(entry)));
    return stored;
  }

  private next(): void {
    const path = this.waiting.pop();
    if (path === undefined) return;
    this.going++;
    void this.get(path)
      .catch(() => this.waiting.splice(0))
      .finally(() => {
        this.going--;
        this.next();
      });
  }

  private async store({ path, size, open }: ArchiveEntry): Promise<StoredFile> {
    const { blobs, pictures } = this.job;
    if (size > IN_MEMORY) return blobs.put(await open());
    const bytes = await collect(await open(), IN_MEMORY, path);
    const [{ stored, ...file }, look] = await Promise.all([blobs.begin(bytes), PICTURE.test(path) ? lookInto(bytes, pictures) : undefined]);
    // Pages go on with what a picture is; that it is safely stored is waited for at the end.
    this.writing.push(stored);
    stored.catch(() => undefined);
    return look ? { ...file, look } : file;
  }

  /** Waits until all of it is stored; throws what went wrong first. */
  async settle(): Promise<void> {
    while (this.going || this.waiting.length) await Promise.allSettled(this.stored.values());
    await Promise.all([...this.stored.values(), ...this.writing]);
  }

  /** Gives the package back, when nothing of it is being read any more. */
  async close(): Promise<void> {
    this.waiting.splice(0);
    await Promise.allSettled([...this.stored.values(), ...this.writing]);
    this.closing();
  }
}
