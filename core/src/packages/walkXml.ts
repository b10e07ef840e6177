import { SaxesParser } from 'saxes';
import { FolioError } from '../ports/ports.ts';
import { xmlFault } from '../folio/xmlFault.ts';
import { DEEPEST_XML } from './xmlDepth.ts';

/** An element by its local name; attributes by theirs, save those of XML itself, which keep their prefix. */
export interface XmlNode {
  name: string;
  attributes: Record<string, string>;
  children: (XmlNode | string)[];
}

/** What is done with a file while it is read. */
export interface XmlVisitor {
  /** Elements that are handed over whole. */
  whole: ReadonlySet<string>;
  taken(node: XmlNode): void;
  /** Elements outside of those, as they begin; `depth` counts from 0 at the root. */
  opened?(name: string, attributes: Record<string, string>, depth: number): void;
  closed?(name: string): void;
}

const damaged = (part: string, why: string): FolioError =>
  new FolioError('exchange.damaged', `${part} cannot be read: ${why}.`, 'Ask the translator to save it again, or to send it again.');

/**
 * Reads a file of XML element by element, so that a large one is never in memory as a tree. Entities of its own are refused: nothing is
 * looked up, nothing expands. Gives how many processing instructions were passed over.
 */
export function walkXml(text: string, part: string, visitor: XmlVisitor): { instructions: number } {
  const parser = new SaxesParser({ xmlns: true });
  const open: XmlNode[] = [];
  let depth = 0;
  let instructions = 0;
  parser.on('error', (error) => {
    throw damaged(part, `${xmlFault(error)} (line ${parser.line})`);
  });
  parser.on('doctype', (doctype) => {
    if (doctype.includes('[')) throw damaged(part, 'it defines entities of its own, which are not looked up');
  });
  parser.on('processinginstruction', () => void instructions++);
  parser.on('opentag', (tag) => {
    if (++depth > DEEPEST_XML) throw damaged(part, `elements stand inside one another more than ${DEEPEST_XML} deep (line ${parser.line})`);
    const attributes: Record<string, string> = {};
    for (const a of Object.values(tag.attributes)) {
      if (a.prefix === 'xmlns' || a.name === 'xmlns') continue;
      attributes[a.prefix === 'xml' ? a.name : a.local] = a.value;
    }
    const above = open[open.length - 1];
    if (!above && !visitor.whole.has(tag.local)) return visitor.opened?.(tag.local, attributes, depth - 1);
    const node: XmlNode = { name: tag.local, attributes, children: [] };
    above?.children.push(node);
    open.push(node);
  });
  parser.on('closetag', (tag) => {
    depth--;
    const node = open.pop();
    if (!node) visitor.closed?.(tag.local);
    else if (!open.length) visitor.taken(node);
  });
  const words = (text: string): void => {
    const above = open[open.length - 1];
    if (above && text) above.children.push(text);
  };
  parser.on('text', words);
  parser.on('cdata', words);
  parser.write(text).close();
  return { instructions };
}

export const childNodes = (node: XmlNode | undefined, name?: string): XmlNode[] =>
  (node?.children ?? []).filter((c): c is XmlNode => typeof c !== 'string' && (name === undefined || c.name === name));

export const childNode = (node: XmlNode | undefined, name: string): XmlNode | undefined => childNodes(node, name)[0];

export const textIn = (node: XmlNode): string => node.children.map((c) => (typeof c === 'string' ? c : textIn(c))).join('');

/** What was passed over of a file, in plain words. */
export const passedOver = (instructions: number): string[] =>
  instructions ? [`${instructions} processing ${instructions === 1 ? 'instruction' : 'instructions'}, which no translation has`] : [];
