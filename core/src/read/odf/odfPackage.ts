import { open } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { Cancelled, FolioError } from '../../ports/ports.ts';
import { collect, openArchive } from '../../packages/archive.ts';
import type { ArchiveEntry } from '../../packages/archive.ts';
import type { ReadJob } from '../../intake/reader.ts';
import { PackageFiles } from './packageFiles.ts';
import { childOf, childrenOf, readXml } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

/** Kinds of document that are read, by the last part of their media type (OpenDocument 1.3 part 2, appendix on media types). */
const KINDS: Record<string, 'drawing' | 'presentation'> = {
  graphics: 'drawing',
  'graphics-template': 'drawing',
  presentation: 'presentation',
  'presentation-template': 'presentation',
};
const TYPE = /^application\/vnd\.oasis\.opendocument\.([a-z-]+)$/;

/** A package opened: its XML as trees, everything else as files that are stored when they are wanted. */
export interface OdfPackage {
  kind: 'drawing' | 'presentation';
  mediaType: string;
  content: XmlElement;
  /** The same tree as `content` in a flat file. */
  styles: XmlElement | null;
  meta: XmlElement | null;
  files: PackageFiles;
}

/** Opens a package, or a flat file where the name says so. Throws a FolioError in words for a person. */
export async function openOdf(job: ReadJob, flat: boolean): Promise<OdfPackage> {
  return flat ? openFlat(job) : openZip(job);
}

async function openZip(job: ReadJob): Promise<OdfPackage> {
  const archive = await openArchive(job.file, job.limits);
  const entries = new Map<string, ArchiveEntry>();
  let files: PackageFiles | null = null;
  try {
    for await (const entry of archive.entries) entries.set(entry.path, entry);
    const text = async (path: string, limit: number): Promise<string | undefined> => {
      const entry = entries.get(path);
      return entry && textOfStream(await entry.open(), limit, path);
    };
    const mediaType = ((await text('mimetype', 1024)) ?? '').trim();
    const texts = new Map<string, string>();
    for (const part of ['META-INF/manifest.xml', 'meta.xml', 'styles.xml', 'content.xml']) {
      const found = await text(part, job.limits.partBytes);
      if (found !== undefined) texts.set(part, found);
    }
    if (job.signal?.aborted) throw new Cancelled();
    const parsed = partsOf(texts, mediaType);
    files = new PackageFiles(job, entries, () => archive.close());
    return { ...parsed, files };
  } finally {
    if (!files) archive.close();
  }
}

/** The package's XML, checked for what kind of document it is. */
function partsOf(texts: ReadonlyMap<string, string>, mimetype: string): Omit<OdfPackage, 'files'> {
  const manifest = texts.get('META-INF/manifest.xml');
  const listed = manifest === undefined ? null : readXml(manifest, 'META-INF/manifest.xml');
  const entries = listed ? childrenOf(listed, 'manifest:file-entry') : [];
  if (entries.some((e) => childOf(e, 'manifest:encryption-data'))) throw encrypted();
  const mediaType = mimetype || entries.find((e) => e.attributes['manifest:full-path'] === '/')?.attributes['manifest:media-type'] || '';
  const kind = kindOf(mediaType);
  const content = texts.get('content.xml');
  if (content === undefined)
    throw new FolioError(
      'odf.noContent',
      'The file has no content.xml, the part that holds the pages.',
      'It was not saved whole. Save or copy it again.',
    );
  const read = (part: string): XmlElement | null => (texts.has(part) ? readXml(texts.get(part)!, part) : null);
  return { kind, mediaType, content: readXml(content, 'content.xml'), styles: read('styles.xml'), meta: read('meta.xml') };
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
  return {
    kind: kindOf(mediaType),
    mediaType,
    content: root,
    styles: root,
    meta: root,
    files: new PackageFiles(job, new Map(), () => undefined),
  };
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
