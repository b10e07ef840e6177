import type { Readable } from 'node:stream';
import yazl from 'yazl';
import type { Sample } from '../sampleAssembly.ts';
import { drawingOf, NAMESPACES } from './drawing.ts';
import type { Kind } from './drawing.ts';
import { el, xmlOf } from './element.ts';

const MEDIA_TYPES: Record<Kind, string> = {
  drawing: 'application/vnd.oasis.opendocument.graphics',
  presentation: 'application/vnd.oasis.opendocument.presentation',
};
const MANIFEST = 'urn:oasis:names:tc:opendocument:xmlns:manifest:1.0';
/** All entries carry the earliest time a zip can hold, so that equal documents make equal packages. */
const EPOCH = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };

/** A sample as an OpenDocument package (part 2: the media type first and stored, then a manifest), and what it could not hold. */
export function writeOpenDocument(sample: Sample, kind: Kind): { package: Readable; notHeld: string[] } {
  const { content, styles, meta, notHeld } = drawingOf(sample.folio, kind);
  const zip = new yazl.ZipFile();
  const entries: { path: string; type: string }[] = [];
  const add = (path: string, type: string, bytes: Buffer): void => {
    entries.push({ path, type });
    zip.addBuffer(bytes, path, EPOCH);
  };
  zip.addBuffer(Buffer.from(MEDIA_TYPES[kind]), 'mimetype', { ...EPOCH, compress: false });
  for (const [path, node] of Object.entries({ 'content.xml': content, 'styles.xml': styles, 'meta.xml': meta }))
    add(path, 'text/xml', Buffer.from(xmlOf(node)));
  for (const media of Object.values(sample.folio.head.media)) {
    const folder = media.mediaType.startsWith('image/') ? 'Pictures' : 'Media';
    const path = `${folder}/${media.file.replace(/^.*\//, '')}`;
    entries.push({ path, type: media.mediaType });
    zip.addReadStreamLazy(path, { ...EPOCH, compress: false }, (done) => done(null, sample.blobs.stream(media.sha256)));
  }
  const manifest = el('manifest:manifest', { 'xmlns:manifest': MANIFEST, 'manifest:version': NAMESPACES['office:version'] }, [
    el('manifest:file-entry', {
      'manifest:full-path': '/',
      'manifest:media-type': MEDIA_TYPES[kind],
      'manifest:version': NAMESPACES['office:version'],
    }),
    ...entries.map((e) => el('manifest:file-entry', { 'manifest:full-path': e.path, 'manifest:media-type': e.type })),
  ]);
  zip.addBuffer(Buffer.from(xmlOf(manifest)), 'META-INF/manifest.xml', EPOCH);
  zip.end();
  return { package: zip.outputStream as Readable, notHeld };
}
