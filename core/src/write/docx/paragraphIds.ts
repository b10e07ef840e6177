import { createHash } from 'node:crypto';
import type { Folio } from '../../folio/folio.ts';
import { readText } from '../../folio/text.ts';
import { guidOf } from '../shared/office/guid.ts';
import { OFFICE } from '../shared/office/officePackage.ts';
import type { OfficePackage, Part } from '../shared/office/officePackage.ts';
import { el, xmlFile } from '../shared/office/xml.ts';
import type { Bookmarks } from './bookmarks.ts';
import { CONTENT } from './namespaces.ts';

/** What the list of paragraphs is written in. */
const PARAGRAPHS = 'urn:elastic-folio:paragraphs:1';
const STORE = 'http://schemas.openxmlformats.org/officeDocument/2006/customXml';

/**
 * Says which paragraph of the document each bookmark of the file is around, and what its text was when it was written, and where its
 * pages begin: by this, what colleagues change is found again (custom XML data, ISO/IEC 29500-1, 15.2.5).
 */
export function writeParagraphIds(pack: OfficePackage, document: Part, folio: Folio, bookmarks: Bookmarks): void {
  const texts = new Map(
    Object.values(folio.stories).flatMap((s) =>
      Object.values(s.blocks).flatMap((b) => (b.kind === 'paragraph' ? [[b.id, { story: s.id, text: readText(b) }] as const] : [])),
    ),
  );
  const list = bookmarks.of('p').flatMap(({ id, name }) => {
    const at = texts.get(id);
    return at ? [el('paragraph', { id, story: at.story, bookmark: name, text: shortOf(at.text) })] : [];
  });
  const pages = bookmarks.of('pg').map(({ id, name }) => el('page', { id, bookmark: name }));
  const item = pack.add(
    'customXml/item1.xml',
    'application/xml',
    xmlFile(el('paragraphs', { xmlns: PARAGRAPHS, document: folio.head.id }, list, pages)),
  );
  const id = guidOf(folio.head.id);
  const properties = pack.add(
    'customXml/itemProps1.xml',
    CONTENT.customProperties,
    xmlFile(
      el('ds:datastoreItem', { 'xmlns:ds': STORE, 'ds:itemID': id }, el('ds:schemaRefs', {}, el('ds:schemaRef', { 'ds:uri': PARAGRAPHS }))),
    ),
  );
  item.relate(`${OFFICE}/customXmlProps`, properties);
  document.relate(`${OFFICE}/customXml`, item);
}

/** A short sign of a text: it is another when the text is. */
const shortOf = (text: string): string => createHash('sha256').update(text).digest('hex').slice(0, 16);
