import type { Matrix } from '../../folio/geometry.ts';
import type { ObservedFlow } from '../flow/observedFlow.ts';
import { emptyPage } from '../observed.ts';
import type { ObservedPage } from '../observed.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import type { Outside } from '../office/wordReader.ts';
import { openPackage } from './openPackage.ts';
import { OdfStyles, pointsOf } from './odfStyles.ts';
import { OdfText, wordsIn } from './odfText.ts';
import { isObject, listenersOf, PlacedThings } from './placedThings.ts';

/** How a slide of OpenDocument comes: its SMIL type and subtype, and when it goes on by itself. */
interface OdpMotion {
  type: string | null;
  advance: number | null;
}
export interface ObservedOdp {
  flow: ObservedFlow;
  pages: ObservedPage[];
  motion: OdpMotion[];
  notes: string[];
}

/** Reads a presentation of OpenDocument back from its bytes alone; `passes`: slides of which nothing is asked, counted from 0. */
export async function observeOdp(
  bytes: Uint8Array,
  outside: Outside,
  passes: (slide: number) => boolean = () => false,
): Promise<ObservedOdp> {
  const pack = await openPackage(bytes);
  const { files, problems, content, styles, meta } = pack;
  const slides = childrenOf(child(child(content, 'office:body'), 'office:presentation'), 'draw:page');
  const names = slides.map((s) => s.attributes['draw:name'] ?? '');
  const deck = new Deck(files, new OdfStyles(styles, content), styles, outside, problems, names);
  for (const [i, slide] of slides.entries()) {
    if (passes(i)) deck.pass();
    else await deck.page(slide);
  }
  const about = child(meta, 'office:meta');
  return {
    flow: {
      title: child(about, 'dc:title')?.text ?? '',
      language: child(about, 'dc:language')?.text ?? '',
      outline: [],
      pages: [],
      blocks: deck.text.out.blocks,
      figures: [],
      tables: deck.text.out.tables,
      notes: [],
      embedded: [],
      problems,
    },
    pages: deck.pages,
    motion: deck.motion,
    notes: deck.notes,
  };
}

class Deck {
  readonly pages: ObservedPage[] = [];
  readonly motion: OdpMotion[] = [];
  readonly notes: string[] = [];
  readonly text: OdfText;
  private readonly things: PlacedThings;
  /** Those of what is being read: of a master page, or of a page. */
  private styles: OdfStyles;
  private readonly masterStyles: OdfStyles;

  constructor(
    files: ReadonlyMap<string, Uint8Array>,
    private readonly ownStyles: OdfStyles,
    private readonly stylesPart: Node | undefined,
    outside: Outside,
    private readonly problems: ObservedFlow['problems'],
    /** What its pages are called, in order. */
    private readonly names: readonly string[],
  ) {
    this.styles = ownStyles;
    this.things = new PlacedThings(files, outside, problems);
    this.masterStyles = new OdfStyles(stylesPart, stylesPart);
    this.text = new OdfText(ownStyles, 'content.xml', () => String(this.pages.length));
  }

  pass(): void {
    this.pages.push(emptyPage(0, 0));
    this.motion.push({ type: null, advance: null });
    this.notes.push('');
  }

  async page(node: Node): Promise<void> {
    const master = childrenOf(child(this.stylesPart, 'office:master-styles'), 'style:master-page').find(
      (m) => m.attributes['style:name'] === node.attributes['draw:master-page-name'],
    );
    if (!master) this.problems.push({ file: 'content.xml', says: `${node.attributes['draw:name']} has no master page` });
    const layout = childrenOf(child(this.stylesPart, 'office:automatic-styles'), 'style:page-layout').find(
      (l) => l.attributes['style:name'] === master?.attributes['style:page-layout-name'],
    );
    const size = child(layout, 'style:page-layout-properties')?.attributes ?? {};
    const page = emptyPage(pointsOf(size['fo:page-width']), pointsOf(size['fo:page-height']));
    this.pages.push(page);
    const style = node.attributes['draw:style-name'];
    const own = (property: string): string | undefined => this.styles.get('drawing-page', style, 'style:drawing-page-properties', property);
    if (master && own('presentation:background-objects-visible') === 'true') {
      this.styles = this.masterStyles;
      for (const shape of master.children) await this.shape(shape, page, IDENTITY, true);
      this.styles = this.ownStyles;
    }
    for (const shape of node.children) await this.shape(shape, page, IDENTITY, false);
    const seconds = /^PT([\d.]+)S$/.exec(own('presentation:duration') ?? '')?.[1];
    this.motion.push({ type: own('smil:type') ?? null, advance: seconds === undefined ? null : Number(seconds) });
    this.notes.push(wordsIn(child(node, 'presentation:notes')));
  }

  private async shape(node: Node, page: ObservedPage, around: Matrix, repeats: boolean): Promise<void> {
    if (node.name === 'draw:g') {
      for (const inside of node.children) await this.shape(inside, page, around, repeats);
      return;
    }
    if (!isObject(node)) return;
    const box = await this.things.looks(node, page, around, this.styles);
    for (const href of listenersOf(node)) page.areas.push({ box, target: this.targetOf(href) });
    this.things.words(node, page, around, this.styles, this.text, repeats, String(this.pages.length));
  }

  /** Pages are found by their names. */
  private targetOf(href: string): string {
    const at = href.startsWith('#') ? this.names.indexOf(href.slice(1)) : -1;
    return at < 0 ? href : `page:${at + 1}`;
  }
}

const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
