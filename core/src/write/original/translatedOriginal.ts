import { Readable } from 'node:stream';
import yazl from 'yazl';
import type { Folio } from '../../folio/folio.ts';
import type { TextPart } from '../../folio/edition.ts';
import { byConventions } from '../../language/conventions.ts';
import { wholeEdition } from '../../language/inEdition.ts';
import { wordsOf } from '../../language/parts.ts';
import { standingOf } from '../../language/standing.ts';
import { unitsOf } from '../../language/unitsOf.ts';
import { escape } from '../../paint/svg/markup.ts';
import type { Origin } from '../../ports/origin.ts';
import { FolioError } from '../../ports/ports.ts';
import { unzip } from '../../packages/unzip.ts';
import { elementAt } from '../../read/odf/originalParts.ts';
import { childOf, childrenOf, readXml } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';
import { paragraphInOriginal } from './paragraphInOriginal.ts';
import { opening, rawPlaces, spliced } from './rawPlaces.ts';

/** All entries carry the earliest time a zip can hold, so that equal documents make equal files. */
const EPOCH = { mtime: new Date(1980, 0, 1), forceDosTimestamp: true };

/**
 * The file that a document came in from, in another language: only its texts are others, all else is as it was, letter by letter. Texts that
 * are not translated, and all that was added here, are not in it. Throws a FolioError where the source is of another format.
 */
export async function translatedOriginal(folio: Folio, origin: Origin, language: string): Promise<Readable> {
  if (origin.format !== 'odf')
    throw new FolioError(
      'original.format',
      'The document did not come in from an OpenDocument file.',
      'Make another output in this language.',
    );
  const texts = targetsOf(folio, language);
  const source = await origin.bytes();
  if (origin.ending.startsWith('.f')) {
    const xml = new TextDecoder().decode(source);
    return Readable.from([Buffer.from(translatedPart(xml, ['content.xml', 'styles.xml'], origin, texts))]);
  }
  const files = await unzip(source);
  const zip = new yazl.ZipFile();
  for (const [path, bytes] of files) {
    if (path.endsWith('/')) continue;
    const isPart = path === 'content.xml' || path === 'styles.xml';
    const content = isPart ? Buffer.from(translatedPart(new TextDecoder().decode(bytes), [path], origin, texts)) : Buffer.from(bytes);
    zip.addBuffer(path === 'meta.xml' ? Buffer.from(translatedMeta(new TextDecoder().decode(bytes), texts)) : content, path, {
      ...EPOCH,
      compress: path !== 'mimetype',
    });
  }
  zip.end();
  return Readable.from(zip.outputStream as AsyncIterable<Buffer>);
}

interface Text {
  source: readonly TextPart[];
  target: readonly TextPart[];
}

/** What is translated, by the ids of units. */
function targetsOf(folio: Folio, language: string): Map<string, Text> {
  const edition = wholeEdition(folio, language);
  if (!edition) throw new FolioError('edition.none', `The document has no edition in “${language}”.`, 'Bring in a translation first.');
  const out = new Map<string, Text>();
  for (const unit of unitsOf(folio)) {
    const translated = edition.units[unit.id];
    if (!translated) continue;
    const { target } = standingOf(unit, translated);
    // A copy of the source stays as it stands in the file.
    if (target && target !== unit.parts)
      out.set(unit.id, { source: unit.parts, target: byConventions(target, edition.conventions, folio.head.metadata.language, language) });
  }
  return out;
}

function translatedPart(xml: string, parts: readonly string[], origin: Origin, texts: ReadonlyMap<string, Text>): string {
  const root = readXml(xml, parts[0]!);
  const places = rawPlaces(xml);
  const changes: { from: number; to: number; text: string }[] = [];
  const replace = (element: XmlElement, inner: string): void => {
    const { name, start, innerStart, innerEnd, end } = places.get(element.path)!;
    if (innerStart === end) changes.push({ from: start, to: end, text: `${opening(xml.slice(start, end))}${inner}</${name}>` });
    else changes.push({ from: innerStart, to: innerEnd, text: inner });
  };
  for (const [id, { source, target }] of texts) {
    const [kind, item] = id.includes(':') ? [id.slice(0, id.indexOf(':')), id.slice(id.indexOf(':') + 1)] : [null, id];
    const [part, path] = (origin.elements[origin.called(item)] ?? origin.elements[item] ?? '').split('#');
    if (path === undefined || !parts.includes(part!)) continue;
    const element = elementAt(root, path);
    if (!element) continue;
    if (kind === null && /^text:[ph]$/.test(element.name)) replace(element, paragraphInOriginal(element, source, target, { xml, places }));
    if (kind === 'alt') {
      // What was said of the picture stands in one of two elements, or in both.
      const said = childrenOf(element).filter((c) => /^svg:(title|desc)$/.test(c.name));
      const [last] = said.slice(-1);
      if (last) replace(last, escape(wordsOf(target)));
      if (said.length > 1) replace(said[0]!, '');
    }
  }
  return spliced(xml, changes);
}

/** The title, description and keywords, where the file says them itself. */
function translatedMeta(xml: string, texts: ReadonlyMap<string, Text>): string {
  const meta = childOf(readXml(xml, 'meta.xml'), 'office:meta');
  const places = rawPlaces(xml);
  const changes: { from: number; to: number; text: string }[] = [];
  const say = (element: XmlElement | undefined, id: string): void => {
    const text = texts.get(id);
    const place = element && places.get(element.path);
    if (text && place && place.innerStart !== place.end)
      changes.push({ from: place.innerStart, to: place.innerEnd, text: escape(wordsOf(text.target)) });
  };
  say(childOf(meta, 'dc:title'), 'meta:title');
  say(childOf(meta, 'dc:description'), 'meta:description');
  childrenOf(meta, 'meta:keyword').forEach((keyword, i) => say(keyword, `meta:subject:${i + 1}`));
  return spliced(xml, changes);
}
