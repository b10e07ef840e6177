import { SaxesParser } from 'saxes';
import type { SaxesTagPlain } from 'saxes';
import { FolioError } from '../ports/ports.ts';
import { xmlFault } from '../folio/xmlFault.ts';
import { DEEPEST_XML } from './xmlDepth.ts';

/** An element with its names as OpenDocument's own prefixes write them, whatever prefixes the file uses. */
export interface XmlElement {
  name: string;
  attributes: Record<string, string>;
  children: (XmlElement | string)[];
  /** Where it stands: indexes of elements from the root down, for finding it again in the original. */
  path: string;
}

/** Prefixes of OpenDocument 1.3, part 3, section 1.4, and of the standards it takes over, by namespace. */
const PREFIXES = new Map(
  Object.entries({
    'urn:oasis:names:tc:opendocument:xmlns:office:1.0': 'office',
    'urn:oasis:names:tc:opendocument:xmlns:style:1.0': 'style',
    'urn:oasis:names:tc:opendocument:xmlns:text:1.0': 'text',
    'urn:oasis:names:tc:opendocument:xmlns:table:1.0': 'table',
    'urn:oasis:names:tc:opendocument:xmlns:drawing:1.0': 'draw',
    'urn:oasis:names:tc:opendocument:xmlns:presentation:1.0': 'presentation',
    'urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0': 'fo',
    'urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0': 'svg',
    'urn:oasis:names:tc:opendocument:xmlns:smil-compatible:1.0': 'smil',
    'urn:oasis:names:tc:opendocument:xmlns:animation:1.0': 'anim',
    'urn:oasis:names:tc:opendocument:xmlns:dr3d:1.0': 'dr3d',
    'urn:oasis:names:tc:opendocument:xmlns:form:1.0': 'form',
    'urn:oasis:names:tc:opendocument:xmlns:script:1.0': 'script',
    'urn:oasis:names:tc:opendocument:xmlns:config:1.0': 'config',
    'urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0': 'number',
    'urn:oasis:names:tc:opendocument:xmlns:meta:1.0': 'meta',
    'urn:oasis:names:tc:opendocument:xmlns:manifest:1.0': 'manifest',
    'http://purl.org/dc/elements/1.1/': 'dc',
    'http://www.w3.org/1999/xlink': 'xlink',
    'http://www.w3.org/2001/xml-events': 'dom',
    'http://www.w3.org/XML/1998/namespace': 'xml',
    'http://www.w3.org/1998/Math/MathML': 'math',
  }),
);

/**
 * Reads XML into a tree. Document types are passed over: what they define is not looked up, so nothing outside the file is
 * ever asked for, and an entity of their own is an error. Throws a FolioError that says where the text breaks off.
 */
export function readXml(text: string, part: string): XmlElement {
  const parser = new SaxesParser({ xmlns: false, position: true });
  const open: XmlElement[] = [];
  const counts: number[] = [0];
  const spaces: Namespaces[] = [
    new Namespaces(
      new Map([
        ['', ''],
        ['xml', 'http://www.w3.org/XML/1998/namespace'],
      ]),
    ),
  ];
  let root: XmlElement | null = null;
  const fail = (why: string): never => {
    throw new FolioError(
      'odf.xml',
      `${part} cannot be read: ${why}.`,
      'Open the file in the program it came from and save it again; if that works, bring in the new file.',
    );
  };
  const unbound = (name: string): never => fail(`${name} has a prefix that nothing declares (line ${parser.line})`);
  parser.on('error', (error) => fail(`${xmlFault(error)} (line ${parser.line})`));
  parser.on('opentag', (tag: SaxesTagPlain) => {
    if (open.length >= DEEPEST_XML) fail(`elements stand inside one another more than ${DEEPEST_XML} deep (line ${parser.line})`);
    const space = spaces[spaces.length - 1]!.within(tag.attributes);
    const above = open[open.length - 1];
    const index = counts[counts.length - 1]!++;
    const element: XmlElement = {
      name: space.element(tag.name) ?? unbound(tag.name),
      attributes: space.attributes(tag.attributes, unbound),
      children: [],
      path: above ? `${above.path}/${index}` : '',
    };
    counts.push(0);
    spaces.push(space);
    if (above) above.children.push(element);
    else root ??= element;
    open.push(element);
  });
  parser.on('closetag', () => {
    open.pop();
    counts.pop();
    spaces.pop();
  });
  const take = (characters: string): void => {
    const above = open[open.length - 1];
    if (above && characters) above.children.push(characters);
  };
  parser.on('text', take);
  parser.on('cdata', take);
  parser.write(text).close();
  return root ?? fail('it is empty');
}

/** Prefixes that hold inside an element, and the names that they make (Namespaces in XML 1.0, sections 5 and 6). */
class Namespaces {
  private readonly elements = new Map<string, string | undefined>();
  private readonly names = new Map<string, string | undefined>();

  constructor(private readonly uris: ReadonlyMap<string, string>) {}

  /** Those inside an element: its own, where it declares any. */
  within(attributes: Record<string, string>): Namespaces {
    let uris: Map<string, string> | undefined;
    for (const name in attributes)
      if (name.startsWith('xmlns')) {
        const prefix = name === 'xmlns' ? '' : name[5] === ':' ? name.slice(6) : null;
        if (prefix !== null) (uris ??= new Map(this.uris)).set(prefix, attributes[name]!);
      }
    return uris ? new Namespaces(uris) : this;
  }

  /** An element's name; undefined where its prefix is declared nowhere. */
  element(name: string): string | undefined {
    if (!this.elements.has(name)) this.elements.set(name, this.called(name));
    return this.elements.get(name);
  }

  /** Attributes by their names: the same where the file writes them as the standard does. */
  attributes(attributes: Record<string, string>, unbound: (name: string) => never): Record<string, string> {
    for (const name in attributes) if (this.attribute(name) !== name) return this.renamed(attributes, unbound);
    return attributes;
  }

  private renamed(attributes: Record<string, string>, unbound: (name: string) => never): Record<string, string> {
    const out: Record<string, string> = {};
    for (const [name, value] of Object.entries(attributes))
      if (!/^xmlns(:|$)/.test(name)) out[this.attribute(name) ?? unbound(name)] = value;
    return out;
  }

  private attribute(name: string): string | undefined {
    // Without a prefix, an attribute is in no namespace, whatever the default one is.
    if (!this.names.has(name)) this.names.set(name, name.includes(':') ? this.called(name) : name.startsWith('xmlns') ? '' : name);
    return this.names.get(name);
  }

  private called(name: string): string | undefined {
    const colon = name.indexOf(':');
    const uri = this.uris.get(colon < 0 ? '' : name.slice(0, colon));
    const local = name.slice(colon + 1);
    if (uri === undefined) return undefined;
    const prefix = PREFIXES.get(uri);
    return prefix ? `${prefix}:${local}` : uri ? `?:${local}` : local;
  }
}

const isElement = (node: XmlElement | string): node is XmlElement => typeof node !== 'string';

/** An element's children that are elements, or those of one name; nothing has none. */
export const childrenOf = (element: XmlElement | undefined, name?: string): XmlElement[] =>
  (element?.children ?? []).filter((c): c is XmlElement => isElement(c) && (name === undefined || c.name === name));

export function childOf(element: XmlElement | undefined, name: string): XmlElement | undefined {
  return element?.children.find((c): c is XmlElement => isElement(c) && c.name === name);
}

/** All text inside an element, as it stands. */
export const textOf = (element: XmlElement): string => element.children.map((c) => (typeof c === 'string' ? c : textOf(c))).join('');

/** The first element of a name anywhere inside, in reading order. */
export function findInside(element: XmlElement, name: string): XmlElement | undefined {
  for (const child of childrenOf(element)) {
    const found = child.name === name ? child : findInside(child, name);
    if (found) return found;
  }
  return undefined;
}

/** How many elements of some names stand anywhere inside. */
export const countInside = (element: XmlElement, names: ReadonlySet<string>): number =>
  childrenOf(element).reduce((sum, child) => sum + (names.has(child.name) ? 1 : 0) + countInside(child, names), 0);
