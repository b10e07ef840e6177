import { createHash } from 'node:crypto';
import type { Folio } from '../../folio/folio.ts';
import { escape } from '../../paint/svg/markup.ts';
import type { Accessibility } from './accessibility.ts';

export interface ManifestItem {
  id: string;
  href: string;
  mediaType: string;
  properties?: string | undefined;
}

/** A book’s identifier: the document’s own, else one made of its id, the same in every edition of the same document. */
export function identifierOf({ head }: Folio): string {
  if (head.metadata.identifier) return head.metadata.identifier;
  const hash = createHash('sha1').update(`elastic-folio/${head.id}`).digest('hex');
  // RFC 9562, 5.5: version 5, made of a name.
  const variant = ((parseInt(hash.slice(16, 18), 16) & 0x3f) | 0x80).toString(16);
  return `urn:uuid:${hash.slice(0, 8)}-${hash.slice(8, 12)}-5${hash.slice(13, 16)}-${variant}${hash.slice(18, 20)}-${hash.slice(20, 32)}`;
}

/** What a package document says of its book, beside what the document itself does. */
export interface PackageFacts {
  title: string;
  language: string;
  accessibility: Accessibility;
  /** More properties of the whole book, such as those of fixed layout. */
  meta?: readonly [property: string, value: string][];
  direction?: 'ltr' | 'rtl';
}

/** The package document (EPUB 3.3, section 5): metadata, every file, and the order in which they are read. */
export function packageDocument(
  folio: Folio,
  o: PackageFacts & {
    modified: Date;
    items: readonly ManifestItem[];
    spine: readonly { id: string; properties?: string | undefined }[];
  },
): string {
  const { metadata: m } = folio.head;
  const dc = (name: string, value: string | undefined, more = ''): string =>
    value ? `    <dc:${name}${more}>${escape(value)}</dc:${name}>\n` : '';
  const meta = (property: string, value: string): string => `    <meta property="${property}">${escape(value)}</meta>\n`;
  const a = o.accessibility;
  const metadata =
    dc('identifier', identifierOf(folio), ' id="book-id"') +
    dc('title', o.title || 'Untitled') +
    dc('language', o.language) +
    m.creators.map((c, i) => dc('creator', c, ` id="creator-${i + 1}"`)).join('') +
    dc('publisher', m.publisher) +
    dc('rights', m.rights) +
    dc('description', m.description) +
    m.subjects.map((s) => dc('subject', s)).join('') +
    // EPUB 3.3, 5.5.4: seconds, in Universal Time.
    meta('dcterms:modified', o.modified.toISOString().replace(/\.\d+Z$/, 'Z')) +
    a.accessModes.map((v) => meta('schema:accessMode', v)).join('') +
    a.sufficient.map((v) => meta('schema:accessModeSufficient', v)).join('') +
    a.features.map((v) => meta('schema:accessibilityFeature', v)).join('') +
    a.hazards.map((v) => meta('schema:accessibilityHazard', v)).join('') +
    meta('schema:accessibilitySummary', a.summary) +
    (o.meta ?? []).map(([property, value]) => meta(property, value)).join('');
  const manifest = o.items
    .map(
      (i) =>
        `    <item id="${i.id}" href="${escape(i.href)}" media-type="${i.mediaType}"${i.properties ? ` properties="${i.properties}"` : ''}/>\n`,
    )
    .join('');
  const spine = o.spine.map((s) => `    <itemref idref="${s.id}"${s.properties ? ` properties="${s.properties}"` : ''}/>\n`).join('');
  return `<?xml version="1.0" encoding="UTF-8"?>
<package xmlns="http://www.idpf.org/2007/opf" version="3.0" unique-identifier="book-id" xml:lang="${escape(o.language)}">
  <metadata xmlns:dc="http://purl.org/dc/elements/1.1/">
${metadata}  </metadata>
  <manifest>
${manifest}  </manifest>
  <spine${o.direction === 'rtl' ? ' page-progression-direction="rtl"' : ''}>
${spine}  </spine>
</package>
`;
}

export const CONTAINER = `<?xml version="1.0" encoding="UTF-8"?>
<container xmlns="urn:oasis:names:tc:opendocument:xmlns:container" version="1.0">
  <rootfiles>
    <rootfile full-path="EPUB/package.opf" media-type="application/oebps-package+xml"/>
  </rootfiles>
</container>
`;
