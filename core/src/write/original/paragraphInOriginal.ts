import type { TextPart } from '../../folio/edition.ts';
import { escape } from '../../paint/svg/markup.ts';
import { pictureInLine } from '../../read/odf/inLines.ts';
import { childOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';
import { opening } from './rawPlaces.ts';
import type { RawPlace } from './rawPlaces.ts';

/** The XML that a paragraph of the original stands in. */
export interface OriginalXml {
  xml: string;
  places: ReadonlyMap<string, RawPlace>;
}

/** What an original paragraph consists of, by its words: which elements are around each letter, and what stands between them. */
interface Taken {
  /** Elements around each character that is no white space, from the outside in. */
  chains: XmlElement[][];
  objects: XmlElement[];
  /** What marks a place and shows nothing: kept at the paragraph’s beginning or end. */
  begins: XmlElement[];
  ends: XmlElement[];
}

const AROUND = new Set(['text:span', 'text:a', 'text:meta', 'text:bookmark-ref', 'text:reference-ref']);
const OBJECTS = new Set(['text:page-number', 'text:page-count', 'text:title', 'text:note', 'text:ruby']);

function take(element: XmlElement, chain: XmlElement[], taken: Taken): void {
  for (const child of element.children) {
    if (typeof child === 'string') {
      taken.chains.push(...Array.from({ length: child.replace(/\s+/g, '').length }, () => chain));
      continue;
    }
    if (AROUND.has(child.name)) take(child, [...chain, child], taken);
    else if (OBJECTS.has(child.name) || pictureInLine(child)) {
      taken.objects.push(child);
      const base = child.name === 'text:ruby' ? childOf(child, 'text:ruby-base') : undefined;
      if (base) take(base, chain, taken);
    } else if (/^text:(bookmark|bookmark-start|reference-mark|reference-mark-start)$|^office:annotation$/.test(child.name))
      taken.begins.push(child);
    else if (/^text:(bookmark-end|reference-mark-end)$|^office:annotation-end$/.test(child.name)) taken.ends.push(child);
    else if (/^text:(tab|line-break|s|soft-page-break)$/.test(child.name) || /^(draw|table):/.test(child.name)) continue;
    else take(child, chain, taken);
  }
}

/**
 * What stands in a paragraph of the original in another language: the elements around its words go with their codes, what stands between
 * words is the original’s own. `source`: the text as the document has it, whose letters are those of the original.
 */
export function paragraphInOriginal(
  element: XmlElement,
  source: readonly TextPart[],
  target: readonly TextPart[],
  original: OriginalXml,
): string {
  const taken: Taken = { chains: [], objects: [], begins: [], ends: [] };
  take(element, [], taken);
  const raw = (e: XmlElement): string => {
    const place = original.places.get(e.path)!;
    return original.xml.slice(place.start, place.end);
  };
  const { chainOf, ground, objectOf } = chainsByCode(source, taken);
  const prefix = /^(.*:)?/.exec(original.places.get(element.path)!.name)![0];
  const out = new Runs(original, prefix);
  for (const mark of taken.begins) out.raw(raw(mark));
  const open: number[] = [];
  for (const part of target) {
    const chain = chainOf.get(open[open.length - 1] ?? 0) ?? ground;
    if (part.type === 'open') open.push(part.code);
    else if (part.type === 'close') open.splice(open.lastIndexOf(part.code), 1);
    else if (part.type === 'wrap') out.element(chain, 'line-break');
    else if (part.type === 'code') {
      const object = objectOf.get(part.code);
      if (object) out.object(chain, raw(object));
    } else out.words(chain, part.text);
  }
  out.close();
  for (const mark of taken.ends) out.raw(raw(mark));
  return out.text;
}

/** The elements around the first letter of each pair of codes, and around the first outside of all; what each single code stands for. */
function chainsByCode(source: readonly TextPart[], { chains, objects }: Taken) {
  const chainOf = new Map<number, XmlElement[]>();
  const objectOf = new Map<number, XmlElement>();
  const waiting: number[] = [];
  const open: number[] = [];
  let ground: XmlElement[] | undefined;
  let at = 0;
  let object = 0;
  for (const part of source) {
    if (part.type === 'open') {
      open.push(part.code);
      waiting.push(part.code);
    } else if (part.type === 'close') open.splice(open.lastIndexOf(part.code), 1);
    else if (part.type === 'code') objectOf.set(part.code, objects[object++] ?? ({ name: '' } as XmlElement));
    else if (part.type === 'text') {
      const letters = part.text.replace(/\s+/g, '').length;
      if (!letters) continue;
      const chain = chains[at] ?? [];
      for (const code of waiting.splice(0)) chainOf.set(code, chain);
      if (!open.length) ground ??= chain;
      at += letters;
    }
  }
  for (const [code, e] of objectOf) if (!e.name) objectOf.delete(code);
  return { chainOf, objectOf, ground: ground ?? [] };
}

/** Writes runs of words one after another, each inside the elements that belong around it; neighbours share theirs. */
class Runs {
  text = '';
  private open: XmlElement[] = [];
  private afterSpace = true;

  constructor(
    private readonly original: OriginalXml,
    private readonly prefix: string,
  ) {}

  words(chain: readonly XmlElement[], words: string): void {
    if (!words) return;
    this.within(chain);
    for (const piece of words.match(/\t| +|[^\t ]+/g) ?? []) {
      if (piece === '\t') this.text += `<${this.prefix}tab/>`;
      else if (piece.startsWith(' ')) {
        // One space is itself, save at a beginning; more are counted (OpenDocument 1.3 part 3, 6.1.2 and 6.1.3).
        const plain = this.afterSpace ? '' : ' ';
        const more = piece.length - plain.length;
        this.text += plain + (more ? `<${this.prefix}s ${this.prefix}c="${more}"/>` : '');
      } else this.text += escape(piece);
      this.afterSpace = piece === '\t' ? false : piece.startsWith(' ');
    }
  }

  element(chain: readonly XmlElement[], name: string): void {
    this.within(chain);
    this.text += `<${this.prefix}${name}/>`;
    this.afterSpace = true;
  }

  object(chain: readonly XmlElement[], xml: string): void {
    this.within(chain);
    this.text += xml;
    this.afterSpace = false;
  }

  raw(xml: string): void {
    this.text += xml;
  }

  close(): void {
    this.within([]);
  }

  private within(chain: readonly XmlElement[]): void {
    let same = 0;
    while (same < chain.length && same < this.open.length && chain[same] === this.open[same]) same++;
    for (const e of this.open.slice(same).reverse()) this.text += `</${this.original.places.get(e.path)!.name}>`;
    for (const e of chain.slice(same)) {
      const { start, innerStart } = this.original.places.get(e.path)!;
      // One that is empty is closed at once in the file; here it has words.
      this.text += opening(this.original.xml.slice(start, innerStart));
    }
    this.open = [...chain];
  }
}
