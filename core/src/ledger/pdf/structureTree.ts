import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRef } from '@cantoo/pdf-lib';
import type { PDFContext, PDFDocument, PDFObject } from '@cantoo/pdf-lib';
import { textOf } from './pdfFile.ts';

/** Marked content that an element holds: by its mark on the page, and by its place in the reading order of the whole file. */
export interface StructureContent {
  mark: number;
  at: number;
}

/** An element of the structure tree, as far as it is on one page (ISO 32000-1, 14.7.2). */
export interface StructureNode {
  /** Its standard type: what the file calls it is looked up in the role map (14.7.3). */
  role: string;
  alt?: string;
  lang?: string;
  children: (StructureNode | StructureContent)[];
}

/** Elements whose parts are told as a whole, those without content too: rows have cells that are empty. */
const WHOLE = new Set(['L', 'LBody', 'LI', 'Table', 'THead', 'TBody', 'TFoot', 'TR']);

/** Deeper trees are none that anybody made on purpose. */
const DEEPEST = 200;

/**
 * The structure tree of a file, by pages: what is at the top of each, in reading order. The whole tree is gone through once:
 * pdf.js, which tells that of one page at a time, looks through all that is beside it for each page anew.
 */
export function structureTrees(file: PDFDocument): StructureNode[][] {
  const pages = file.getPages();
  const trees = pages.map((): StructureNode[] => []);
  const root = file.catalog.lookupMaybe(PDFName.of('StructTreeRoot'), PDFDict);
  if (root) new Tree(file.context, root, new Map(pages.map((p, i) => [p.ref.tag, i]))).into(trees);
  return trees;
}

/** An element: as it is on each page where it has content, and as it is told where it has none. */
interface Element {
  parts: Map<number, StructureNode>;
  bare: StructureNode;
}

class Tree {
  private readonly roles: PDFDict | undefined;
  private readonly seen = new Set<PDFDict>();
  private contents = 0;

  constructor(
    private readonly context: PDFContext,
    private readonly root: PDFDict,
    private readonly pages: ReadonlyMap<string, number>,
  ) {
    this.roles = root.lookupMaybe(PDFName.of('RoleMap'), PDFDict);
  }

  into(trees: StructureNode[][]): void {
    for (const kid of this.kidsOf(this.root)) for (const [page, node] of this.element(kid, 0)?.parts ?? []) trees[page]!.push(node);
  }

  private kidsOf(dict: PDFDict): PDFObject[] {
    const kids = this.context.lookup(dict.get(PDFName.of('K')));
    return kids instanceof PDFArray ? kids.asArray() : kids === undefined ? [] : [kids];
  }

  private pageOf(dict: PDFDict): number | undefined {
    const page = dict.get(PDFName.of('Pg'));
    return page instanceof PDFRef ? this.pages.get(page.tag) : undefined;
  }

  private roleOf(dict: PDFDict): string {
    const own = dict.get(PDFName.of('S'));
    const mapped = own instanceof PDFName ? this.roles?.get(own) : undefined;
    return mapped instanceof PDFName ? mapped.decodeText() : own instanceof PDFName ? own.decodeText() : '';
  }

  /** Nothing where the object is none, or has been told before: trees of damaged files may bite their tails. */
  private element(object: PDFObject, depth: number): Element | null {
    const dict = this.context.lookup(object);
    if (!(dict instanceof PDFDict) || depth > DEEPEST || this.seen.has(dict)) return null;
    this.seen.add(dict);
    const role = this.roleOf(dict);
    const alt = textOf(dict.lookup(PDFName.of('Alt'))) ?? textOf(dict.lookup(PDFName.of('ActualText')));
    const lang = textOf(dict.lookup(PDFName.of('Lang')));
    const make = (): StructureNode => ({ role, ...(alt !== undefined && { alt }), ...(lang !== undefined && { lang }), children: [] });
    const kids = this.kidsOf(dict).flatMap((kid) => this.kid(kid, this.pageOf(dict), depth));
    const parts = new Map<number, StructureNode>();
    for (const kid of kids) for (const page of 'bare' in kid ? kid.parts.keys() : [kid.page]) if (!parts.has(page)) parts.set(page, make());
    const bare = make();
    const isWhole = WHOLE.has(role);
    for (const kid of kids) {
      if (!('bare' in kid)) {
        if (kid.content) parts.get(kid.page)!.children.push(kid.content);
        continue;
      }
      if (isWhole) bare.children.push(kid.bare);
      for (const [page, part] of parts) {
        const there = kid.parts.get(page) ?? (isWhole ? kid.bare : undefined);
        if (there) part.children.push(there);
      }
    }
    return { parts, bare };
  }

  /** What stands in an element's K: content of a page by its mark, a reference to such or to an object, or another element. */
  private kid(object: PDFObject, page: number | undefined, depth: number): (Element | { page: number; content?: StructureContent })[] {
    const value = this.context.lookup(object);
    const marked = (mark: PDFObject | undefined, on: number | undefined): { page: number; content: StructureContent }[] =>
      mark instanceof PDFNumber && on !== undefined ? [{ page: on, content: { mark: mark.asNumber(), at: this.contents++ } }] : [];
    if (value instanceof PDFNumber) return marked(value, page);
    if (!(value instanceof PDFDict)) return [];
    const type = value.get(PDFName.of('Type'));
    const on = value.has(PDFName.of('Pg')) ? this.pageOf(value) : page;
    if (type === PDFName.of('MCR')) return marked(value.lookup(PDFName.of('MCID')), on);
    if (type === PDFName.of('OBJR')) return on === undefined ? [] : [{ page: on }];
    const element = this.element(object, depth + 1);
    return element ? [element] : [];
  }
}
