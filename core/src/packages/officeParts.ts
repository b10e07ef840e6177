import { SaxesParser } from 'saxes';
import { unzip } from './unzip.ts';
import { DEEPEST_XML } from './xmlDepth.ts';

/** An element of a part; its name with the prefix that its namespace usually has, whatever the file calls it. */
export interface Node {
  name: string;
  local: string;
  /** The namespace that it is of. */
  uri: string;
  attributes: Record<string, string>;
  children: Node[];
  /** Text that stands in it directly. */
  text: string;
  /** Text and elements as they follow one another. */
  content: (string | Node)[];
}

/** Namespaces of the office formats, by the prefixes that the standard’s own examples give them (ISO/IEC 29500-1, annex A). */
const PREFIXES: Record<string, string> = {
  'http://schemas.openxmlformats.org/wordprocessingml/2006/main': 'w',
  'http://schemas.openxmlformats.org/officeDocument/2006/relationships': 'r',
  'http://schemas.openxmlformats.org/drawingml/2006/wordprocessingDrawing': 'wp',
  'http://schemas.openxmlformats.org/drawingml/2006/main': 'a',
  'http://schemas.openxmlformats.org/drawingml/2006/picture': 'pic',
  'http://schemas.openxmlformats.org/presentationml/2006/main': 'p',
  'http://schemas.openxmlformats.org/markup-compatibility/2006': 'mc',
  'http://schemas.microsoft.com/office/word/2010/wordprocessingShape': 'wps',
  'http://schemas.microsoft.com/office/drawing/2017/decorative': 'adec',
  'http://schemas.microsoft.com/office/word/2010/wordml': 'w14',
  'http://schemas.openxmlformats.org/package/2006/relationships': 'rel',
  'http://schemas.openxmlformats.org/package/2006/content-types': 'ct',
  'http://purl.org/dc/elements/1.1/': 'dc',
  // Those of OpenDocument (1.3, part 3, 1.4).
  ...Object.fromEntries(
    ['office', 'style', 'text', 'table', 'presentation', 'meta', 'manifest', 'script'].map((n) => [
      `urn:oasis:names:tc:opendocument:xmlns:${n}:1.0`,
      n,
    ]),
  ),
  'urn:oasis:names:tc:opendocument:xmlns:drawing:1.0': 'draw',
  'urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0': 'fo',
  'urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0': 'svg',
  'urn:oasis:names:tc:opendocument:xmlns:smil-compatible:1.0': 'smil',
  'http://www.w3.org/1999/xlink': 'xlink',
  'urn:org:documentfoundation:names:experimental:office:xmlns:loext:1.0': 'loext',
  'http://www.w3.org/XML/1998/namespace': 'xml',
};

const called = (uri: string, local: string): string => (uri ? `${PREFIXES[uri] ?? '?'}:${local}` : local);

/** Reads a part; throws where it is no well-formed XML. */
export function readPart(xml: string): Node {
  const parser = new SaxesParser({ xmlns: true });
  const root: Node = { name: '', local: '', uri: '', attributes: {}, children: [], text: '', content: [] };
  const open = [root];
  parser.on('error', (error) => {
    throw error;
  });
  parser.on('opentag', (tag) => {
    const attributes: Record<string, string> = {};
    for (const a of Object.values(tag.attributes)) attributes[called(a.uri, a.local)] = a.value;
    if (open.length > DEEPEST_XML) throw new Error(`elements stand inside one another more than ${DEEPEST_XML} deep`);
    const node: Node = {
      name: called(tag.uri, tag.local),
      local: tag.local,
      uri: tag.uri,
      attributes,
      children: [],
      text: '',
      content: [],
    };
    open[open.length - 1]!.children.push(node);
    open[open.length - 1]!.content.push(node);
    open.push(node);
  });
  parser.on('text', (text) => {
    open[open.length - 1]!.text += text;
    open[open.length - 1]!.content.push(text);
  });
  parser.on('closetag', () => void open.pop());
  parser.write(xml).close();
  return root.children[0] ?? root;
}

export const child = (node: Node | undefined, name: string): Node | undefined => node?.children.find((c) => c.name === name);
export const childrenOf = (node: Node | undefined, name: string): Node[] => node?.children.filter((c) => c.name === name) ?? [];
export function* within(node: Node): Generator<Node> {
  yield node;
  for (const c of node.children) yield* within(c);
}
export const valueOf = (node: Node | undefined, name: string): string | undefined => child(node, name)?.attributes['w:val'];

interface Relation {
  type: string;
  target: string;
  outside: boolean;
}

/** A package that was opened: its parts by their paths, and what is wrong with it as one. */
export interface OpenPackage {
  files: ReadonlyMap<string, Uint8Array>;
  part(path: string): Node | undefined;
  /** What a part relates to, by the ids it uses. */
  relations(path: string): ReadonlyMap<string, Relation>;
  /** The part that the package is about. */
  main: string;
  problems: { file: string; says: string }[];
}

/** Opens an office file from its bytes alone (Open Packaging Conventions, ISO/IEC 29500-2). */
export async function openParts(bytes: Uint8Array): Promise<OpenPackage> {
  const files = await unzip(bytes);
  const problems: OpenPackage['problems'] = [];
  const read = new Map<string, Node | undefined>();
  const part = (path: string): Node | undefined => {
    if (!read.has(path)) {
      const found = files.get(path);
      try {
        read.set(path, found && readPart(new TextDecoder().decode(found)));
      } catch (error) {
        read.set(path, undefined);
        problems.push({ file: path, says: error instanceof Error ? error.message : 'it is no XML' });
      }
    }
    return read.get(path);
  };
  const related = new Map<string, Map<string, Relation>>();
  const relations = (path: string): Map<string, Relation> => {
    let known = related.get(path);
    if (known) return known;
    related.set(path, (known = new Map()));
    const at = path.lastIndexOf('/') + 1;
    for (const r of childrenOf(part(`${path.slice(0, at)}_rels/${path.slice(at)}.rels`), 'rel:Relationship')) {
      const { Id = '', Type = '', Target = '', TargetMode } = r.attributes;
      const outside = TargetMode === 'External';
      const target = outside ? Target : inPackage(path, Target);
      if (!outside && !files.has(target)) problems.push({ file: path, says: `it relates to ${target}, which is not there` });
      known.set(Id, { type: Type.slice(Type.lastIndexOf('/') + 1), target, outside });
    }
    return known;
  };
  const types = part('[Content_Types].xml');
  const byEnding = new Set(childrenOf(types, 'ct:Default').map((d) => d.attributes['Extension']!.toLowerCase()));
  const byName = new Set(childrenOf(types, 'ct:Override').map((o) => o.attributes['PartName']!.slice(1)));
  for (const path of files.keys())
    if (path !== '[Content_Types].xml' && !byName.has(path) && !byEnding.has(path.slice(path.lastIndexOf('.') + 1).toLowerCase()))
      problems.push({ file: path, says: 'nothing says what it is' });
  for (const path of byName) if (!files.has(path)) problems.push({ file: path, says: 'it is listed, and not there' });
  const main = [...relations('').values()].find((r) => r.type === 'officeDocument')?.target ?? '';
  return { files, part, relations, main, problems };
}

/** A target seen from the folder of the part that names it. */
function inPackage(from: string, target: string): string {
  if (target.startsWith('/')) return target.slice(1);
  const path = from.split('/').slice(0, -1);
  for (const step of target.split('/')) {
    if (step === '..') path.pop();
    else if (step !== '.') path.push(step);
  }
  return path.join('/');
}
