import type { Readable } from 'node:stream';
import { drawingOf, packOdf, wholeDocument } from '@elastic-folio/core/write/opendocument';
import type { Kind } from '@elastic-folio/core/write/opendocument';
import type { Sample } from './sampleAssembly.ts';

const MEDIA_TYPES: Record<Kind, string> = {
  drawing: 'application/vnd.oasis.opendocument.graphics',
  presentation: 'application/vnd.oasis.opendocument.presentation',
};

/** A sample as an OpenDocument package, and what it could not hold. */
export function writeOpenDocument(sample: Sample, kind: Kind): { package: Readable; notHeld: string[] } {
  const { content, styles, meta, notHeld } = drawingOf(sample.folio, kind, wholeDocument(sample.folio));
  const files = Object.values(sample.folio.head.media).map(({ file, mediaType, sha256 }) => ({
    path: `${mediaType.startsWith('image/') ? 'Pictures' : 'Media'}/${file.replace(/^.*\//, '')}`,
    mediaType,
    content: () => sample.blobs.stream(sha256),
  }));
  return { package: packOdf(MEDIA_TYPES[kind], { 'content.xml': content, 'styles.xml': styles, 'meta.xml': meta }, files), notHeld };
}
