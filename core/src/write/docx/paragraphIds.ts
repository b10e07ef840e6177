import type { Folio } from '../../folio/folio.ts';
import { readText } from '../../folio/text.ts';
import { textSign } from '../../ports/textSign.ts';
import { writeCustomXml } from '../ooxml/customXml.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';
import { el } from '../assets/xml.ts';
import type { Bookmarks } from './bookmarks.ts';

/** What the list of paragraphs is written in. */
const PARAGRAPHS = 'urn:elastic-folio:paragraphs:1';

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
  const list = bookmarks.of('p').flatMap(({ id, name, from, to }) => {
    const at = texts.get(id);
    return at ? [el('paragraph', { id, story: at.story, bookmark: name, from, to, text: textSign(at.text) })] : [];
  });
  const pages = bookmarks.of('pg').map(({ id, name }) => el('page', { id, bookmark: name }));
  const data = el('paragraphs', { xmlns: PARAGRAPHS, document: folio.head.id }, list, pages);
  writeCustomXml(pack, document, folio.head.id, PARAGRAPHS, data);
}
