import { boundsOfPath, transformRect } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import { SIGNATURE_CELLS } from '../findings.ts';
import type { ObservedFlow } from '../flow/observedFlow.ts';
import type { ObservedPage, ObservedRun } from '../observed.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import type { Outside } from '../office/wordReader.ts';
import { clipOf, pathOf, placeOf } from './odfShapes.ts';
import { pointsOf } from './odfStyles.ts';
import type { OdfStyles } from './odfStyles.ts';
import { OdfText, wordsIn } from './odfText.ts';

const OBJECT = /^draw:(frame|path|rect|custom-shape|control)$/;
/** Whether something is drawn by itself; groups hold such. */
export const isObject = ({ name }: Node): boolean => OBJECT.test(name);

/** Reads what is drawn on pages of OpenDocument: where it stands, how it looks, what it says (part 3, chapter 10). */
export class PlacedThings {
  constructor(
    private readonly files: ReadonlyMap<string, Uint8Array>,
    private readonly outside: Outside,
    private readonly problems: ObservedFlow['problems'],
    /** Whether a box of that name goes on with the text of another. */
    private readonly goesOn: (name: string) => boolean = () => false,
  ) {}

  /** The outline, the paint and the picture of an object, and the space that it takes on its page. */
  async looks(node: Node, page: ObservedPage, around: Matrix, styles: OdfStyles): Promise<Rect> {
    const { width, height, matrix } = placeOf(node, around);
    const own: Rect = { x: 0, y: 0, width, height };
    const path = node.name === 'draw:path' ? pathOf(node, own) : null;
    const box = path ? boundsOfPath(path, matrix) : transformRect(matrix, own);
    const style = node.attributes['draw:style-name'];
    const fill = styles.graphic(style, 'draw:fill');
    const colour = fill === 'gradient' ? 'gradient' : fill === 'solid' ? (styles.graphic(style, 'draw:fill-color') ?? null) : null;
    const isDrawn = (styles.graphic(style, 'draw:stroke') ?? 'none') !== 'none';
    const stroke = isDrawn ? (styles.graphic(style, 'svg:stroke-color') ?? null) : null;
    if (colour !== null || stroke !== null) page.shapes.push({ box, fill: colour, stroke });
    const image = child(node, 'draw:image');
    if (image) await this.picture(node, image, own, matrix, page, styles);
    return box;
  }

  /** The text of an object: read, or only seen; `number`: what the number of its page is. */
  words(node: Node, page: ObservedPage, around: Matrix, styles: OdfStyles, text: OdfText, seenOnly: boolean, number: string): void {
    const { width, height, matrix } = placeOf(node, around);
    const table = child(node, 'table:table');
    const body = child(node, 'draw:text-box');
    if (table) {
      page.boxes!.push(transformRect(matrix, { x: 0, y: 0, width, height }));
      text.blocks(node);
      return;
    }
    if (!body || !(wordsIn(body).trim() || this.goesOn(node.attributes['draw:name'] ?? ''))) return;
    const style = node.attributes['draw:style-name'];
    const room = ['top', 'right', 'bottom', 'left'].map((side) => pointsOf(styles.graphic(style, `fo:padding-${side}`)));
    const [t, r, b, l] = room as [number, number, number, number];
    page.boxes!.push(transformRect(matrix, { x: l, y: t, width: width - l - r, height: height - t - b }));
    if (seenOnly || isUnread(node)) page.loose.push(...looseIn(body, styles, number));
    else text.blocks(body);
  }

  private async picture(node: Node, image: Node, own: Rect, matrix: Matrix, page: ObservedPage, styles: OdfStyles): Promise<void> {
    const href = image.attributes['xlink:href'] ?? '';
    const bytes = href.startsWith('../') ? await this.outside.beside(href.slice(3)) : this.files.get(href);
    if (!bytes) return void this.problems.push({ file: 'content.xml', says: `a picture leads to ${href}, which is not there` });
    const picture = await this.outside.pictures.signature(bytes, SIGNATURE_CELLS).catch(() => undefined);
    const measured = await this.outside.pictures.info(bytes).catch(() => undefined);
    if (!picture || !measured) return;
    // Lengths of the crop are those of the picture at 96 pixels to the inch (20.179).
    const clip = styles.graphic(node.attributes['draw:style-name'], 'fo:clip');
    const [t, r, b, l] = clipOf(clip);
    const natural = { width: measured.width * 0.75, height: measured.height * 0.75 };
    const [sx, sy] = [own.width / (natural.width - l - r), own.height / (natural.height - t - b)];
    const whole = { x: -l * sx, y: -t * sy, width: natural.width * sx, height: natural.height * sy };
    page.pictures.push({ box: transformRect(matrix, whole), picture, alt: child(node, 'svg:desc')?.text || undefined });
  }
}

/** Words that are seen and not read. */
function looseIn(body: Node, styles: OdfStyles, number: string): ObservedRun[] {
  const reader = new OdfText(styles, 'styles.xml', () => number);
  reader.blocks(body);
  return reader.out.blocks.map(({ text, label }) => ({
    text: `${label ?? ''}${text}`,
    font: '',
    size: 0,
    colour: '',
    start: null,
    angle: 0,
    language: '',
  }));
}

const isUnread = (node: Node): boolean => node.attributes['draw:decorative'] === 'true' || node.attributes['loext:decorative'] === 'true';

/** Events of an object that lead somewhere. */
export const listenersOf = (node: Node): string[] =>
  childrenOf(child(node, 'office:event-listeners'), 'presentation:event-listener').map((l) => l.attributes['xlink:href'] ?? '');
