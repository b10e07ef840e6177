import { pathData, rectPath } from '../../folio/geometry.ts';
import type { Matrix, Path, Rect } from '../../folio/geometry.ts';
import { customGeometry } from '../../read/odf/customShape.ts';
import { NotTakenList } from '../../intake/notTaken.ts';
import { pathOf as outlineOf } from '../../read/odf/shapePaths.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';
import { readTransform } from '../../read/odf/transform.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { escape } from '../ooxml/redrawText.ts';
import { clipOf, pathOf, placeOf } from '../../ledger/odf/odfShapes.ts';
import { pointsOf } from '../../ledger/odf/odfStyles.ts';
import type { OdfStyles } from '../../ledger/odf/odfStyles.ts';
import type { OpenPackage } from '../../ledger/odf/openPackage.ts';
import { OdfTextDrawing } from './redrawOdfText.ts';
import { colourIn } from '../drawnPage.ts';

/** What a box of text goes on with: the box that has all of the text, and how high those before it are. */
export interface GoesOn {
  first: Node | undefined;
  height: number;
}

/** A picture of a file as an address that holds it. */
export interface Shown {
  src: string;
  /** Its own size, at 96 pixels to the inch, in points. */
  natural: { width: number; height: number };
}

/** Lines without a width are as thin as can be seen (20.391). */
const HAIRLINE = 0.3;
const DRAWN = /^draw:(frame|path|rect|custom-shape|ellipse|circle|polyline|polygon|regular-polygon|line|connector)$/;

const styleOf = ({ attributes: a }: Node): [family: string, style: string | undefined] =>
  a['draw:style-name'] === undefined && a['presentation:style-name'] !== undefined
    ? ['presentation', a['presentation:style-name']]
    : ['graphic', a['draw:style-name']];

const holdsWords = (node: Node): boolean => node.children.some((c) => c.name === 'text:p' || c.name === 'text:list');

/** A look whose outline is only filled, or only drawn. */
const partly =
  (get: (property: string) => string | undefined, filled: boolean, stroked: boolean) =>
  (property: string): string | undefined =>
    (property === 'draw:fill' && !filled) || (property === 'draw:stroke' && !stroked) ? 'none' : get(property);

/** Where a shape stands; lines by their ends (19.569 to 19.580). */
function placed(node: Node): ReturnType<typeof placeOf> {
  const a = node.attributes;
  if (a['svg:x1'] !== undefined) {
    const [x1, y1, x2, y2] = ['svg:x1', 'svg:y1', 'svg:x2', 'svg:y2'].map((n) => pointsOf(a[n])) as [number, number, number, number];
    const size = { width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) };
    return { ...size, matrix: [1, 0, 0, 1, Math.min(x1, x2), Math.min(y1, y2)] };
  }
  const matrix = a['draw:transform']?.startsWith('matrix') ? null : readTransform(a['draw:transform']);
  const at = placeOf(node, [1, 0, 0, 1, 0, 0]);
  return matrix ? { ...at, matrix } : at;
}

/** The outlines of a shape in its own space, and which of them are painted how. */
function outlinesOf(node: Node, own: Rect): { path: Path; filled: boolean; stroked: boolean }[] {
  const a = node.attributes;
  const whole = (path: Path, filled = true) => [{ path, filled, stroked: true }];
  if (node.name === 'draw:custom-shape') return customGeometry(treeOf(node), own.width, own.height, {}, new NotTakenList()).parts;
  if (a['svg:x1'] !== undefined) {
    const [x1, y1, x2, y2] = ['svg:x1', 'svg:y1', 'svg:x2', 'svg:y2'].map((n) => pointsOf(a[n])) as [number, number, number, number];
    const [left, top] = [Math.min(x1, x2), Math.min(y1, y2)];
    const straight: Path = [
      ['M', x1 - left, y1 - top],
      ['L', x2 - left, y2 - top],
    ];
    return whole(straight, false);
  }
  const path =
    node.name === 'draw:path' ? pathOf(node, own) : node.name === 'draw:frame' ? null : outlineOf(treeOf(node), own.width, own.height);
  return whole(path ?? rectPath(own), node.name !== 'draw:polyline');
}

/** An element as the readers of shapes take it. */
const treeOf = (node: Node): XmlElement => ({
  name: node.name,
  attributes: node.attributes,
  children: node.content.map((c) => (typeof c === 'string' ? c : treeOf(c))),
  path: '',
});

/** Draws what stands on pages of OpenDocument as HTML: outlines, pictures, tables, words. */
export class SlideDrawing {
  private readonly text: OdfTextDrawing;

  constructor(
    private readonly pack: OpenPackage,
    readonly styles: OdfStyles,
    private readonly pictures: ReadonlyMap<string, Shown>,
    page: number,
    /** Boxes that go on with the text of others, by their names. */
    private readonly chains: ReadonlyMap<string, GoesOn> = new Map(),
  ) {
    this.text = new OdfTextDrawing(styles, { picture: (href) => pictures.get(href)?.src, number: () => String(page) });
  }

  /** The ground of a page (part 3, 16.38). */
  ground(style: string | undefined, box: Rect): string {
    const get = (property: string): string | undefined => this.styles.get('drawing-page', style, 'style:drawing-page-properties', property);
    return this.outline(get, pathData(rectPath(box)), box);
  }

  shapes(around: Node): string {
    return around.children.map((node) => this.shape(node)).join('\n');
  }

  shape(node: Node): string {
    if (node.name === 'draw:g') return this.shapes(node);
    if (!DRAWN.test(node.name) || node.attributes['presentation:placeholder'] === 'true') return '';
    const { width, height, matrix } = placed(node);
    const own = { x: 0, y: 0, width, height };
    const [family, style] = styleOf(node);
    const get = (property: string): string | undefined => this.styles.get(family, style, 'style:graphic-properties', property);
    const image = child(node, 'draw:image');
    const table = child(node, 'table:table');
    const body = child(node, 'draw:text-box');
    const inside = [
      ...outlinesOf(node, own).map(({ path, filled, stroked }) => this.outline(partly(get, filled, stroked), pathData(path), own)),
      image ? this.picture(node, image, own, get) : '',
      table ? this.text.blocks({ ...node, children: [table] }) : '',
      body || holdsWords(node)
        ? this.styles.around(family, style, () => this.words(body ?? node, get, this.chains.get(node.attributes['draw:name'] ?? '')))
        : '',
    ];
    const [a, b, c, d, e, f] = matrix as Matrix;
    const turned = Math.abs(b) > 1e-9 || Math.abs(c) > 1e-9 || a < 0 || d < 0;
    const place = turned
      ? `left:0;top:0;transform-origin:0 0;transform:matrix(${[a, b, c, d].join(',')},${(e * 96) / 72},${(f * 96) / 72})`
      : `left:${e}pt;top:${f}pt`;
    return `<div style="position:absolute;${place};width:${width}pt;height:${height}pt">${inside.join('')}</div>`;
  }

  private words(body: Node, get: (property: string) => string | undefined, goesOn: GoesOn | undefined): string {
    const next = body.attributes['draw:chain-next-name'];
    if (goesOn || next !== undefined) {
      const text = goesOn ? goesOn.first : body;
      return `<div style="position:absolute;inset:0;overflow:hidden"><div style="margin-top:${-(goesOn?.height ?? 0)}pt">${text ? this.text.blocks(text) : ''}</div></div>`;
    }
    const inset = ['top', 'right', 'bottom', 'left'].map((side) => `${pointsOf(get(`fo:padding-${side}`))}pt`).join(' ');
    const stands = { middle: 'center', bottom: 'end' }[get('draw:textarea-vertical-align') ?? ''] ?? 'start';
    return `<div style="position:absolute;inset:0;box-sizing:border-box;padding:${inset};display:grid;align-content:${stands}"><div style="min-width:0">${this.text.blocks(body)}</div></div>`;
  }

  private picture(frame: Node, image: Node, own: Rect, get: (property: string) => string | undefined): string {
    const shown = this.pictures.get(image.attributes['xlink:href'] ?? '');
    if (!shown) return '';
    const [t, r, b, l] = clipOf(get('fo:clip'));
    const [sx, sy] = [own.width / (shown.natural.width - l - r), own.height / (shown.natural.height - t - b)];
    const mirror = get('style:mirror') ?? '';
    const over = [mirror.includes('horizontal') && 'scaleX(-1)', mirror.includes('vertical') && 'scaleY(-1)'].filter(Boolean).join(' ');
    const opacity = parseFloat(get('draw:image-opacity') ?? '100') / 100;
    const at = `position:absolute;max-width:none;left:${-l * sx}pt;top:${-t * sy}pt;width:${shown.natural.width * sx}pt;height:${shown.natural.height * sy}pt`;
    const alt = child(frame, 'svg:desc')?.text ?? '';
    return `<div style="position:absolute;inset:0;overflow:hidden;opacity:${opacity}${over && `;transform:${over}`}"><img src="${shown.src}" alt="${escape(alt)}" style="${at}"></div>`;
  }

  private gradients = 0;

  /** An outline with its paint and its shadow. */
  private outline(get: (property: string) => string | undefined, d: string, { width, height }: Rect): string {
    const kind = get('draw:fill') ?? 'none';
    const stroke = (get('draw:stroke') ?? 'none') !== 'none' ? colourIn(get('svg:stroke-color')) : undefined;
    if (kind === 'none' && !stroke) return '';
    const id = `o${++this.gradients}-${Math.round(width * 100)}`;
    const gradient = kind === 'gradient' ? this.gradient(get('draw:fill-gradient-name'), id) : '';
    const fill = gradient ? `url(#${id})` : kind === 'solid' ? (colourIn(get('draw:fill-color')) ?? 'none') : 'none';
    const dash = this.dashes(get('draw:stroke-dash'));
    const line = stroke ? ` stroke="${stroke}" stroke-width="${pointsOf(get('svg:stroke-width')) || HAIRLINE}"${dash}` : '';
    const [w, h] = [width || 1, height || 1];
    const shadow =
      get('draw:shadow') === 'visible'
        ? `;filter:drop-shadow(${pointsOf(get('draw:shadow-offset-x'))}pt ${pointsOf(get('draw:shadow-offset-y'))}pt 0 ${withOpacity(colourIn(get('draw:shadow-color')), get('draw:shadow-opacity'))})`
        : '';
    const opacity = parseFloat(get('draw:opacity') ?? '100') / 100;
    const rule = get('svg:fill-rule') === 'evenodd' ? ' fill-rule="evenodd"' : '';
    return `<svg width="${w}pt" height="${h}pt" viewBox="0 0 ${w} ${h}" style="position:absolute;inset:0;overflow:visible${shadow}">${gradient}<path d="${d}" fill="${fill}" fill-opacity="${opacity}"${rule}${line}/></svg>`;
  }

  private named(element: string, name: string | undefined): Record<string, string> | undefined {
    return childrenOf(child(this.pack.styles, 'office:styles'), element).find((g) => g.attributes['draw:name'] === name)?.attributes;
  }

  private dashes(name: string | undefined): string {
    const a = this.named('draw:stroke-dash', name);
    if (!a) return '';
    const gap = pointsOf(a['draw:distance']);
    const list = [pointsOf(a['draw:dots1-length']), gap, ...(a['draw:dots2'] ? [pointsOf(a['draw:dots2-length']), gap] : [])];
    return ` stroke-dasharray="${list.join(' ')}"`;
  }

  /** From straight down, turned against the clock by tenths of a degree (16.40.4); a round one runs from the edge inwards. */
  private gradient(name: string | undefined, id: string): string {
    const a = this.named('draw:gradient', name);
    if (!a) return '';
    const [from, to] = [colourIn(a['draw:start-color']) ?? '#000', colourIn(a['draw:end-color']) ?? '#fff'];
    const stops = (first: string, last: string): string =>
      `<stop offset="0" stop-color="${first}"/><stop offset="1" stop-color="${last}"/>`;
    if (a['draw:style'] === 'radial')
      return `<radialGradient id="${id}" cx="${escape(a['draw:cx'] ?? '50%')}" cy="${escape(a['draw:cy'] ?? '50%')}" r="75%">${stops(to, from)}</radialGradient>`;
    const turn = (Number(a['draw:angle'] ?? 0) / 1800) * Math.PI;
    const [dx, dy] = [Math.sin(turn) / 2, Math.cos(turn) / 2];
    return `<linearGradient id="${id}" x1="${0.5 - dx}" y1="${0.5 - dy}" x2="${0.5 + dx}" y2="${0.5 + dy}">${stops(from, to)}</linearGradient>`;
  }
}

const withOpacity = (colour = '#000000', opacity = '100%'): string =>
  colour +
  Math.round((parseFloat(opacity) / 100) * 255)
    .toString(16)
    .padStart(2, '0');
