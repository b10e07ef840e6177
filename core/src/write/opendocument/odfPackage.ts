import type { Readable } from 'node:stream';
import yazl from 'yazl';
import { NAMESPACES } from './drawing.ts';
import { el, xmlOf } from './element.ts';
import type { Xml } from './element.ts';

const MANIFEST = 'urn:oasis:names:tc:opendocument:xmlns:manifest:1.0';
/** All entries carry the earliest time a zip can hold, so that equal documents make equal packages. */
const EPOCH = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };

/** A file of a package beside its XML. */
export interface OdfFile {
  path: string;
  mediaType: string;
  content: Uint8Array | (() => Readable);
}

/** A package of OpenDocument (1.3, part 2): its media type first and stored, its XML, its files, a list of them all. */
export function packOdf(mediaType: string, parts: Record<string, Xml>, files: readonly OdfFile[]): Readable {
  const zip = new yazl.ZipFile();
  const entries: { path: string; type: string }[] = [];
  zip.addBuffer(Buffer.from(mediaType), 'mimetype', { ...EPOCH, compress: false });
  for (const [path, root] of Object.entries(parts)) {
    entries.push({ path, type: 'text/xml' });
    zip.addBuffer(Buffer.from(xmlOf(root)), path, EPOCH);
  }
  for (const { path, mediaType: type, content } of files) {
    entries.push({ path, type });
    // A folder is listed, and has no entry of its own (part 2, 4.8.4).
    if (path.endsWith('/')) continue;
    if (typeof content === 'function') zip.addReadStreamLazy(path, { ...EPOCH, compress: false }, (done) => done(null, content()));
    else zip.addBuffer(Buffer.from(content.buffer, content.byteOffset, content.byteLength), path, { ...EPOCH, compress: false });
  }
  const version = NAMESPACES['office:version'];
  const entry = (path: string, type: string, more = {}): Xml =>
    el('manifest:file-entry', { 'manifest:full-path': path, 'manifest:media-type': type, ...more });
  const manifest = el('manifest:manifest', { 'xmlns:manifest': MANIFEST, 'manifest:version': version }, [
    entry('/', mediaType, { 'manifest:version': version }),
    ...entries.map((e) => entry(e.path, e.type)),
  ]);
  zip.addBuffer(Buffer.from(xmlOf(manifest)), 'META-INF/manifest.xml', EPOCH);
  zip.end();
  return zip.outputStream as Readable;
}
