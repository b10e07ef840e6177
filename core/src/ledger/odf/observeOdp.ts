import { boundsOfPath, transformRect } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import type { ObservedFlow } from '../flow/observedFlow.ts';
import { emptyPage } from '../observed.ts';
import type { ObservedPage } from '../observed.ts';
import { child, childrenOf } from '../office/officeParts.ts';
import type { Node } from '../office/officeParts.ts';
import type { Outside } from '../office/wordReader.ts';
import { openPackage } from './openPackage.ts';
import { clipOf, pathOf, placeOf } from './odfShapes.ts';
import { OdfStyles, pointsOf } from './odfStyles.ts';
import { OdfText, wordsIn } from './odfText.ts';

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

/** Reads a presentation of OpenDocument back from its bytes alone. */
export async function observeOdp(bytes: Uint8Array, outside: Outside): Promise<ObservedOdp> {
  const pack = await openPackage(bytes);
  const { files, problems, content, styles, meta } = pack;
  const slides = childrenOf(child(child(content, 'office:body'), 'office:presentation'), 'draw:page');
  const names = slides.map((s) => s.attributes['draw:name'] ?? '');
  const deck = new Deck(files, new OdfStyles(styles, content), styles, outside, problems, names);
  for (const slide of slides) await deck.page(slide);
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
  /** Those of what is being read: of a master page, or of a page. */
  private styles: OdfStyles;
  private readonly masterStyles: OdfStyles;

  constructor(
    private readonly files: ReadonlyMap<string, Uint8Array>,
    private readonly ownStyles: OdfStyles,
    private readonly stylesPart: Node | undefined,
    private readonly outside: Outside,
    private readonly problems: ObservedFlow['problems'],
    /** What its pages are called, in order. */
    private readonly names: readonly string[],
  ) {
    this.styles = ownStyles;
    this.masterStyles = new OdfStyles(stylesPart, stylesPart);
    this.text = new OdfText(ownStyles, 'content.xml', () => String(this.pages.length));
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
    if (!/^draw:(frame|path|rect|custom-shape|control)$/.test(node.name)) return;
    const { width, height, matrix } = placeOf(node, around);
    const own: Rect = { x: 0, y: 0, width, height };
    const path = node.name === 'draw:path' ? pathOf(node, own) : null;
    const box = path ? boundsOfPath(path, matrix) : transformRect(matrix, own);
    const style = node.attributes['draw:style-name'];
    const fill = this.styles.graphic(style, 'draw:fill');
    const colour = fill === 'gradient' ? 'gradient' : fill === 'solid' ? (this.styles.graphic(style, 'draw:fill-color') ?? null) : null;
    const isDrawn = (this.styles.graphic(style, 'draw:stroke') ?? 'none') !== 'none';
    const stroke = isDrawn ? (this.styles.graphic(style, 'svg:stroke-color') ?? null) : null;
    if (colour !== null || stroke !== null) page.shapes.push({ box, fill: colour, stroke });
    for (const listener of childrenOf(child(node, 'office:event-listeners'), 'presentation:event-listener'))
      page.areas.push({ box, target: this.targetOf(listener.attributes['xlink:href'] ?? '') });
    const image = child(node, 'draw:image');
    if (image) await this.picture(node, image, own, matrix, page);
    const table = child(node, 'table:table');
    const body = child(node, 'draw:text-box');
    if (table) {
      page.boxes!.push(box);
      this.text.blocks(node);
    } else if (body && wordsIn(body).trim()) {
      const room = ['top', 'right', 'bottom', 'left'].map((side) => pointsOf(this.styles.graphic(style, `fo:padding-${side}`)));
      const [t, r, b, l] = room as [number, number, number, number];
      page.boxes!.push(transformRect(matrix, { x: l, y: t, width: width - l - r, height: height - t - b }));
      if (repeats || isUnread(node)) page.loose.push(...this.looseIn(body));
      else this.text.blocks(body);
    }
  }

  private looseIn(body: Node): ObservedPage['loose'] {
    const reader = new OdfText(this.styles, 'styles.xml', () => String(this.pages.length));
    reader.blocks(body);
    const nowhere = { x: 0, y: 0, width: 0, height: 0 };
    return reader.out.blocks.map(({ text, label }) => ({
      text: `${label ?? ''}${text}`,
      font: '',
      size: 0,
      colour: '',
      box: nowhere,
      angle: 0,
      language: '',
      placed: false,
    }));
  }

  /** Pages are found by their names. */
  private targetOf(href: string): string {
    const at = href.startsWith('#') ? this.names.indexOf(href.slice(1)) : -1;
    return at < 0 ? href : `page:${at + 1}`;
  }

  private async picture(node: Node, image: Node, own: Rect, matrix: Matrix, page: ObservedPage): Promise<void> {
    const href = image.attributes['xlink:href'] ?? '';
    const bytes = href.startsWith('../') ? await this.outside.beside(href.slice(3)) : this.files.get(href);
    if (!bytes) return void this.problems.push({ file: 'content.xml', says: `a picture leads to ${href}, which is not there` });
    const picture = await this.outside.pictures.signature(bytes, SIGNATURE_CELLS).catch(() => undefined);
    const measured = await this.outside.pictures.info(bytes).catch(() => undefined);
    if (!picture || !measured) return;
    // Lengths of the crop are those of the picture at 96 pixels to the inch (20.179).
    const clip = this.styles.graphic(node.attributes['draw:style-name'], 'fo:clip');
    const [t, r, b, l] = clipOf(clip);
    const natural = { width: measured.width * 0.75, height: measured.height * 0.75 };
    const [sx, sy] = [own.width / (natural.width - l - r), own.height / (natural.height - t - b)];
    const whole = { x: -l * sx, y: -t * sy, width: natural.width * sx, height: natural.height * sy };
    page.pictures.push({ box: transformRect(matrix, whole), picture, alt: child(node, 'svg:desc')?.text || undefined });
  }
}

const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];
const isUnread = (node: Node): boolean => node.attributes['draw:decorative'] === 'true' || node.attributes['loext:decorative'] === 'true';
