import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { Cancelled, FolioError } from '../../ports/ports.ts';
import { collect, readArchive } from '../archive.ts';
import type { ReadJob } from '../reader.ts';
import { childOf, childrenOf, readXml } from './xmlTree.ts';
import type { XmlElement } from './xmlTree.ts';

/** Kinds of document that are read, by the last part of their media type (OpenDocument 1.3 part 2, appendix on media types). */
const KINDS: Record<string, 'drawing' | 'presentation'> = {
  graphics: 'drawing',
  'graphics-template': 'drawing',
  presentation: 'presentation',
  'presentation-template': 'presentation',
};
const TYPE = /^application\/vnd\.oasis\.opendocument\.([a-z-]+)$/;

/** A package opened: its XML as trees, everything else as blobs by path. */
export interface OdfPackage {
  kind: 'drawing' | 'presentation';
  mediaType: string;
  content: XmlElement;
  /** The same tree as `content` in a flat file. */
  styles: XmlElement | null;
  meta: XmlElement | null;
  files: Map<string, { sha256: string; bytes: number }>;
}

/** Opens a package, or a flat file where the name says so. Throws a FolioError in words for a person. */
export async function openOdf(job: ReadJob, flat: boolean): Promise<OdfPackage> {
  return flat ? openFlat(job) : openZip(job);
}

async function openZip(job: ReadJob): Promise<OdfPackage> {
  const texts = new Map<string, string>();
  const files: OdfPackage['files'] = new Map();
  const storing = new Storing(job, files);
  let mediaType = '';
  let done = 0;
  try {
    for await (const entry of readArchive(job.file, job.limits)) {
      if (job.signal?.aborted) throw new Cancelled();
      job.progress?.(++done, 0, entry.path);
      if (entry.path === 'mimetype') mediaType = (await textOfStream(await entry.open(), 1024, entry.path)).trim();
      else if (/^(content|styles|meta|META-INF\/manifest)\.xml$/.test(entry.path))
        texts.set(entry.path, await textOfStream(await entry.open(), job.limits.partBytes, entry.path));
      else if (!/\.xml$|^(Configurations2|META-INF)\//.test(entry.path)) await storing.add(entry.path, entry.open);
    }
  } finally {
    await storing.settle();
  }
  storing.check();
  const manifest = texts.get('META-INF/manifest.xml');
  const listed = manifest === undefined ? null : readXml(manifest, 'META-INF/manifest.xml');
  const entries = listed ? childrenOf(listed, 'manifest:file-entry') : [];
  if (entries.some((e) => childOf(e, 'manifest:encryption-data'))) throw encrypted();
  mediaType ||= entries.find((e) => e.attributes['manifest:full-path'] === '/')?.attributes['manifest:media-type'] ?? '';
  const kind = kindOf(mediaType);
  const content = texts.get('content.xml');
  if (content === undefined)
    throw new FolioError(
      'odf.noContent',
      'The file has no content.xml, the part that holds the pages.',
      'It was not saved whole. Save or copy it again.',
    );
  const read = (part: string): XmlElement | null => (texts.has(part) ? readXml(texts.get(part)!, part) : null);
  return { kind, mediaType, content: readXml(content, 'content.xml'), styles: read('styles.xml'), meta: read('meta.xml'), files };
}

/** Files that are stored at one time: each waits for its disk, and most of the time would be spent waiting. */
const AT_ONCE = 8;

/** Puts files of a package into blobs, some at a time. */
class Storing {
  private readonly going = new Set<Promise<void>>();
  private failure: Error | null = null;

  constructor(
    private readonly job: ReadJob,
    private readonly files: OdfPackage['files'],
  ) {}

  async add(path: string, open: () => Promise<Readable>): Promise<void> {
    const work: Promise<void> = open()
      .then((stream) => this.job.blobs.put(stream))
      .then((file) => void this.files.set(path, file))
      .catch((error: unknown) => void (this.failure ??= error instanceof Error ? error : new Error(String(error))))
      .finally(() => this.going.delete(work));
    this.going.add(work);
    if (this.going.size >= AT_ONCE) await Promise.race(this.going);
    this.check();
  }

  /** Waits until nothing is being written any more, well or not. */
  async settle(): Promise<void> {
    await Promise.all(this.going);
  }

  /** Throws what went wrong first. */
  check(): void {
    if (this.failure) throw this.failure;
  }
}

async function openFlat(job: ReadJob): Promise<OdfPackage> {
  const handle = await open(job.file);
  let text: string;
  try {
    text = await textOfStream(handle.createReadStream(), job.limits.partBytes, 'the file');
  } finally {
    await handle.close();
  }
  const root = readXml(text, 'the file');
  if (root.name !== 'office:document') throw notOdf();
  const mediaType = root.attributes['office:mimetype'] ?? '';
  return { kind: kindOf(mediaType), mediaType, content: root, styles: root, meta: root, files: new Map() };
}

function kindOf(mediaType: string): OdfPackage['kind'] {
  const name = TYPE.exec(mediaType)?.[1];
  if (name === undefined) throw notOdf();
  const kind = KINDS[name];
  if (!kind)
    throw new FolioError(
      'odf.kind',
      `The file is an OpenDocument ${name.replace('-', ' ')}, not a drawing or a presentation.`,
      'Bring in a file ending in .odg, .odp, .otg, .otp, .fodg or .fodp.',
    );
  return kind;
}

const notOdf = (): FolioError =>
  new FolioError(
    'odf.unlike',
    'The file is no OpenDocument drawing or presentation: what kind of document it is does not stand where it should.',
    'Save it again as an OpenDocument drawing (.odg) or presentation (.odp).',
  );
const encrypted = (): FolioError =>
  new FolioError('archive.encrypted', 'The file is protected by a password.', 'Save it without a password and bring it in again.');

async function textOfStream(stream: Readable, limit: number, part: string): Promise<string> {
  const bytes = await collect(stream, limit, part);
  // XML 1.0, 4.3.3 and appendix F: UTF-16 begins with a byte order mark.
  const encoding = bytes[0] === 0xfe && bytes[1] === 0xff ? 'utf-16be' : bytes[0] === 0xff && bytes[1] === 0xfe ? 'utf-16le' : 'utf-8';
  return new TextDecoder(encoding).decode(bytes);
}
