import type { Folio } from '../../folio/folio.ts';
import { nameInXml } from '../../folio/ids.ts';
import { readText } from '../../folio/text.ts';
import { textSign } from '../../ports/textSign.ts';
import { el, text, xmlOf } from '../shared/odf/element.ts';
import type { Xml } from '../shared/odf/element.ts';
import type { OdfFile } from '../shared/odf/odfPackage.ts';

const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
/** The standard’s words for what a package is made of (OpenDocument 1.3, part 2, chapter 6). */
const PACKAGE = 'http://docs.oasis-open.org/ns/office/1.2/meta/pkg#';
const ODF = 'http://docs.oasis-open.org/ns/office/1.2/meta/odf#';
const OWN = 'urn:elastic-folio:paragraphs:1#';
const SIGNS = 'paragraphs.rdf';

/**
 * Says which document the paragraphs of a text are of, and what each was when it was written, by the ids that they have in the file:
 * metadata of the standard’s own kind, which programs keep (RDF; OpenDocument 1.3, part 1, 4.2).
 */
export function paragraphSigns(folio: Folio, isThere: (paragraph: string) => boolean): OdfFile[] {
  const paragraphs = Object.values(folio.stories).flatMap((s) =>
    Object.values(s.blocks).flatMap((b) => (b.kind === 'paragraph' && isThere(b.id) ? [b] : [])),
  );
  const about = (subject: string, ...children: Xml[]): Xml => el('rdf:Description', { 'rdf:about': subject }, children);
  const signs = el('rdf:RDF', { 'xmlns:rdf': RDF, 'xmlns:own': OWN }, [
    about('content.xml', el('own:document', {}, [text(folio.head.id)])),
    ...paragraphs.map((p) => about(`content.xml#${nameInXml(p.id)}`, el('own:text', {}, [text(textSign(readText(p)))]))),
  ]);
  const type = (kind: string): Xml => el('rdf:type', { 'rdf:resource': kind });
  const manifest = el('rdf:RDF', { 'xmlns:rdf': RDF, 'xmlns:pkg': PACKAGE }, [
    about('', type(`${PACKAGE}Document`), ...['content.xml', 'styles.xml', SIGNS].map((p) => el('pkg:hasPart', { 'rdf:resource': p }))),
    about('content.xml', type(`${ODF}ContentFile`)),
    about('styles.xml', type(`${ODF}StylesFile`)),
    about(SIGNS, type(`${PACKAGE}MetadataFile`)),
  ]);
  const file = (path: string, root: Xml): OdfFile => ({
    path,
    mediaType: 'application/rdf+xml',
    content: new TextEncoder().encode(xmlOf(root)),
  });
  return [file('manifest.rdf', manifest), file(SIGNS, signs)];
}
