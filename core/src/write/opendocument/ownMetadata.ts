import { el, xmlOf } from './element.ts';
import type { Xml } from './element.ts';
import type { OdfFile } from './odfPackage.ts';

const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
/** The standard’s words for what a package is made of (OpenDocument 1.3, part 2, chapter 6). */
const PACKAGE = 'http://docs.oasis-open.org/ns/office/1.2/meta/pkg#';
const ODF = 'http://docs.oasis-open.org/ns/office/1.2/meta/odf#';

/** What is said about something of the package; statements are in the namespace `own`. */
export const about = (subject: string, ...statements: Xml[]): Xml => el('rdf:Description', { 'rdf:about': subject }, statements);

/**
 * Data of our own in a package, as metadata of the standard’s own kind, which programs keep (RDF; OpenDocument 1.3, part 1, 4.2):
 * a file of descriptions, and the manifest that names it. `vocabulary`: what their words are from.
 */
export function ownMetadata(path: string, vocabulary: string, descriptions: readonly Xml[]): OdfFile[] {
  const told = el('rdf:RDF', { 'xmlns:rdf': RDF, 'xmlns:own': vocabulary }, descriptions);
  const type = (kind: string): Xml => el('rdf:type', { 'rdf:resource': kind });
  const manifest = el('rdf:RDF', { 'xmlns:rdf': RDF, 'xmlns:pkg': PACKAGE }, [
    about('', type(`${PACKAGE}Document`), ...['content.xml', 'styles.xml', path].map((p) => el('pkg:hasPart', { 'rdf:resource': p }))),
    about('content.xml', type(`${ODF}ContentFile`)),
    about('styles.xml', type(`${ODF}StylesFile`)),
    about(path, type(`${PACKAGE}MetadataFile`)),
  ]);
  const file = (name: string, root: Xml): OdfFile => ({
    path: name,
    mediaType: 'application/rdf+xml',
    content: new TextEncoder().encode(xmlOf(root)),
  });
  return [file('manifest.rdf', manifest), file(path, told)];
}
