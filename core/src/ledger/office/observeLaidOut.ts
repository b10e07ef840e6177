import { transformRect } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import type { ObservedFlow } from '../flow/observedFlow.ts';
import { emptyPage } from '../observed.ts';
import type { ObservedPage, ObservedRun } from '../observed.ts';
import { anchorBox, anchorsIn, drawnShape, isDecorative, wholePicture } from '../../packages/drawingmlShape.ts';
import { child, childrenOf, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { openWord } from './openWord.ts';
import type { OpenWord } from './openWord.ts';
import { observedWord } from './observeDocx.ts';
import { wordPages } from './wordPages.ts';
import { WordReader } from './wordReader.ts';
import type { Outside } from './wordReader.ts';

/** What a text document of placed boxes says: its words in their order, and what stands where on its pages. */
export interface ObservedLaidOut {
  flow: ObservedFlow;
  pages: ObservedPage[];
}

/** Reads a text document of pages back from its bytes alone: every section is one. */
export async function observeLaidOut(bytes: Uint8Array, outside: Outside): Promise<ObservedLaidOut> {
  const word = await openWord(bytes);
  const reader = new WordReader(word, word.main, word.looks, word.labels, outside);
  const pages: ObservedPage[] = [];
  const marks = new Map<string, number>();
  const found: { page: ObservedPage; address: string; box: Rect }[] = [];
  for (const { nodes, section, number } of wordPages(child(word.document, 'w:body'))) {
    pages.push(await new PageReader(word, reader, outside, found, number).page(nodes, section));
    for (const held of nodes)
      for (const n of within(held)) if (n.name === 'w:bookmarkStart') marks.set(n.attributes['w:name'] ?? '', pages.length);
  }
  for (const { page, address, box } of found) {
    const at = address.startsWith('#') ? marks.get(address.slice(1)) : undefined;
    page.areas.push({ box, target: address.startsWith('#') ? `page:${at ?? 0}` : address });
  }
  reader.checkIds(word.document);
  const flow = await observedWord(word, reader);
  return { flow, pages };
}

const points = (twentieths: string | undefined): number => Number(twentieths ?? 0) / 20;

class PageReader {
  constructor(
    private readonly word: OpenWord,
    private readonly reader: WordReader,
    private readonly outside: Outside,
    private readonly links: { page: ObservedPage; address: string; box: Rect }[],
    /** What is shown where a header asks for the number of its page. */
    private readonly number: number,
  ) {}

  async page(nodes: readonly Node[], section: Node): Promise<ObservedPage> {
    const size = child(section, 'w:pgSz')?.attributes ?? {};
    const page = emptyPage(points(size['w:w']), points(size['w:h']));
    const header = child(section, 'w:headerReference')?.attributes['r:id'];
    const path = header === undefined ? undefined : this.word.relations(this.word.main).get(header)?.target;
    const anchors = nodes.flatMap((n) => anchorsIn(n)).map((anchor) => ({ anchor, path: this.word.main }));
    if (path !== undefined && this.word.part(path))
      anchors.push(...childrenOf(this.word.part(path), 'w:p').flatMap((p) => anchorsIn(p).map((anchor) => ({ anchor, path }))));
    // Pictures and outlines are compared as they lie, from back to front; words as they stand in the file.
    for (const { anchor, path: part } of anchors) await this.words(anchor, part, page);
    const depth = (a: Node): number => Number(a.attributes['relativeHeight'] ?? 0);
    for (const { anchor, path: part } of [...anchors].sort((a, b) => depth(a.anchor) - depth(b.anchor)))
      await this.looks(anchor, part, page);
    return page;
  }

  private async words(anchor: Node, path: string, page: ObservedPage): Promise<void> {
    const own = anchorBox(anchor);
    const text = [...within(anchor)].find((n) => n.name === 'wps:txbx' || n.name === 'wps:linkedTxbx');
    const spPr = [...within(anchor)].find((n) => n.name === 'wps:spPr');
    if (own && text) page.boxes!.push(drawnShape(spPr, own).box);
    const content = child(text, 'w:txbxContent');
    if (!content) return;
    if (path !== this.word.main || isDecorative(child(anchor, 'wp:docPr')))
      page.loose.push(...looseIn(content, path === this.word.main ? null : this.number));
    else await this.reader.blocks(content, []);
  }

  private async looks(anchor: Node, path: string, page: ObservedPage): Promise<void> {
    const own = anchorBox(anchor);
    if (!own) return;
    const all = [...within(anchor)];
    const docPr = child(anchor, 'wp:docPr');
    const spPr = all.find((n) => n.name === 'wps:spPr' || n.name === 'pic:spPr');
    const shape = drawnShape(spPr, own);
    const fill = all.find((n) => n.name === 'pic:blipFill');
    if (shape.fill !== null || shape.stroke !== null) page.shapes.push({ box: shape.box, fill: shape.fill, stroke: shape.stroke });
    const blip = child(fill, 'a:blip')?.attributes;
    const relation = this.word.relations(path).get(blip?.['r:embed'] ?? blip?.['r:link'] ?? '');
    const bytes = relation && (relation.outside ? await this.outside.beside(relation.target) : this.word.files.get(relation.target));
    const picture = bytes && (await this.outside.pictures.signature(bytes, SIGNATURE_CELLS).catch(() => undefined));
    if (picture)
      page.pictures.push({
        box: transformRect(shape.matrix, wholePicture(own, fill)),
        picture,
        alt: docPr?.attributes['descr'] || undefined,
      });
    const link = child(docPr, 'a:hlinkClick')?.attributes['r:id'];
    const address = link === undefined ? undefined : this.word.relations(path).get(link)?.target;
    if (address !== undefined) this.links.push({ page, address, box: shape.box });
  }
}

/** Words that are seen and not read; `number`: of the page, which fields are worked out for anew. */
function looseIn(content: Node, number: number | null): ObservedRun[] {
  const out: ObservedRun[] = [];
  let instruction: string | null = null;
  let shows = true;
  const say = (text: string): void => void out.push({ text, font: '', size: 0, colour: '', start: null, angle: 0, language: '' });
  for (const n of within(content)) {
    const kind = n.name === 'w:fldChar' ? n.attributes['w:fldCharType'] : undefined;
    if (kind === 'begin') instruction = '';
    else if (kind === 'separate') {
      shows = number === null || instruction?.trim() !== 'PAGE';
      if (!shows) say(String(number));
    } else if (kind === 'end') {
      instruction = null;
      shows = true;
    } else if (n.name === 'w:instrText' && instruction !== null) instruction += n.text;
    else if (n.name === 'w:t' && shows) say(n.text);
  }
  return out;
}
