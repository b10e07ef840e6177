import { pointsOfEmu } from '../../packages/emu.ts';
import { transformRect } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import type { ObservedFlow } from '../flow/observedFlow.ts';
import { emptyPage } from '../observed.ts';
import type { ObservedPage, ObservedRun } from '../observed.ts';
import { drawnShape, isDecorative, wholePicture } from '../../packages/drawingmlShape.ts';
import { child, childrenOf, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { openSlides, placeholderOf, said, thingsOf } from './openSlides.ts';
import type { OpenDeck, OpenSlide, SlideThing } from './openSlides.ts';
import { observeSlideMotion } from './slideMotion.ts';
import type { SlideMotion } from './slideMotion.ts';
import { SlideReader } from './slideReader.ts';
import type { Outside } from './wordReader.ts';

/** What a deck of slides says: its words in their order, what stands where on its slides, how they come and what moves on them. */
export interface ObservedDeck {
  flow: ObservedFlow;
  pages: ObservedPage[];
  motion: SlideMotion[];
  /** Notes to slides, in their order. */
  notes: string[];
}

/** Reads a deck of slides back from its bytes alone. */
export async function observeSlides(bytes: Uint8Array, outside: Outside): Promise<ObservedDeck> {
  const deck = await openSlides(bytes);
  const reader = new SlideReader(deck);
  const pages: ObservedPage[] = [];
  for (const slide of deck.slides) {
    const page = new PageReader(deck, reader, outside, slide);
    pages.push(await page.read());
    checkIds(slide, deck);
  }
  const core = [...deck.relations('').values()].find((r) => r.type === 'core-properties')?.target;
  const about = (name: string): string => child(core === undefined ? undefined : deck.part(core), name)?.text ?? '';
  return {
    flow: {
      title: about('dc:title'),
      language: about('dc:language'),
      outline: [],
      pages: [],
      blocks: reader.out.blocks,
      figures: [],
      tables: reader.out.tables,
      notes: [],
      embedded: [],
      problems: deck.problems,
    },
    pages,
    motion: deck.slides.map((s) => observeSlideMotion(s.root)),
    notes: deck.slides.map((s) => notesOf(deck, s)),
  };
}

class PageReader {
  private readonly page: ObservedPage;

  constructor(
    private readonly deck: OpenDeck,
    private readonly reader: SlideReader,
    private readonly outside: Outside,
    private readonly slide: OpenSlide,
  ) {
    this.page = emptyPage(deck.size.width, deck.size.height);
  }

  async read(): Promise<ObservedPage> {
    const { layout, root, path } = this.slide;
    // Places of a layout are no part of what is seen.
    for (const thing of thingsOf(layout.root)) if (!placeholderOf(thing.node)) await this.thing(thing, layout.path, true);
    for (const thing of thingsOf(root, layout.root)) await this.thing(thing, path, false);
    return this.page;
  }

  private async thing({ node, own }: SlideThing, path: string, repeats: boolean): Promise<void> {
    const { page } = this;
    const about = said(node);
    const press = child(about, 'a:hlinkClick');
    if (node.name === 'p:graphicFrame') {
      page.boxes!.push(own);
      const tbl = [...within(node)].find((n) => n.name === 'a:tbl');
      if (tbl) this.reader.table(tbl, this.slide);
      return;
    }
    const spPr = child(node, 'p:spPr');
    const shape = drawnShape(spPr, own);
    if (shape.fill !== null || shape.stroke !== null) page.shapes.push({ box: shape.box, fill: shape.fill, stroke: shape.stroke });
    if (press) page.areas.push({ box: shape.box, target: targetOf(this.reader.leadsTo(press, path)) });
    if (node.name === 'p:pic') await this.picture(node, own, shape.matrix, path, about?.attributes['descr']);
    const body = child(node, 'p:txBody');
    if (!body || !childrenOf(body, 'a:p').some((p) => childrenOf(p, 'a:r').length || childrenOf(p, 'a:fld').length)) return;
    const { lIns, tIns, rIns, bIns } = child(body, 'a:bodyPr')?.attributes ?? {};
    const [l, t, r, b] = [lIns, tIns, rIns, bIns].map(pointsOfEmu) as [number, number, number, number];
    page.boxes!.push(transformRect(shape.matrix, { x: own.x + l, y: own.y + t, width: own.width - l - r, height: own.height - t - b }));
    if (repeats || isDecorative(about)) page.loose.push(...looseIn(body, this.slide.number));
    else this.reader.body(body, this.slide);
  }

  private async picture(
    node: Node,
    own: Rect,
    matrix: Parameters<typeof transformRect>[0],
    path: string,
    alt: string | undefined,
  ): Promise<void> {
    const fill = child(node, 'p:blipFill');
    const blip = child(fill, 'a:blip')?.attributes;
    const relation = this.deck.relations(path).get(blip?.['r:embed'] ?? blip?.['r:link'] ?? '');
    const bytes = relation && (relation.outside ? await this.outside.beside(relation.target) : this.deck.files.get(relation.target));
    const picture = bytes && (await this.outside.pictures.signature(bytes, SIGNATURE_CELLS).catch(() => undefined));
    if (picture) this.page.pictures.push({ box: transformRect(matrix, wholePicture(own, fill)), picture, alt: alt || undefined });
  }
}

const targetOf = (href: string): string => (/^#\d+$/.test(href) ? `page:${href.slice(1)}` : href);

/** Words that are seen and not read. */
const looseIn = (body: Node, number: number): ObservedRun[] =>
  [...within(body)].flatMap((n): ObservedRun[] => {
    if (n.name !== 'a:r' && n.name !== 'a:fld') return [];
    const text = n.attributes['type'] === 'slidenum' ? String(number) : (child(n, 'a:t')?.text ?? '');
    return [{ text, font: '', size: 0, colour: '', start: null, angle: 0, language: '' }];
  });

/** Numbers of shapes stand once on a slide (20.1.2.2.8). */
function checkIds({ root, path }: OpenSlide, deck: OpenDeck): void {
  const seen = new Set<string>();
  for (const n of root ? within(root) : []) {
    const id = n.name === 'p:cNvPr' ? n.attributes['id'] : undefined;
    if (id === undefined) continue;
    if (seen.has(id)) deck.problems.push({ file: path, says: `two shapes have the number ${id}` });
    seen.add(id);
  }
}

function notesOf(deck: OpenDeck, { path }: OpenSlide): string {
  const notes = [...deck.relations(path).values()].find((r) => r.type === 'notesSlide')?.target;
  const root = notes === undefined ? undefined : deck.part(notes);
  const body = thingsOfNotes(root);
  return body ? [...within(body)].flatMap((n) => (n.name === 'a:t' ? [n.text] : [])).join(' ') : '';
}

const thingsOfNotes = (root: Node | undefined): Node | undefined =>
  childrenOf(child(child(root, 'p:cSld'), 'p:spTree'), 'p:sp').find((n) => placeholderOf(n)?.attributes['type'] === 'body');
