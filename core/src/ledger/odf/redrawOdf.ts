import { pathData, rectPath } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import { pagesNamed } from '../../folio/joinedSpreads.ts';
import { child, childrenOf } from '../office/officeParts.ts';
import type { Node } from '../office/officeParts.ts';
import { escape } from '../office/redrawText.ts';
import { openPackage } from './openPackage.ts';
import { chainsIn, openTextPages } from './openTextPages.ts';
import type { OpenTextPage } from './openTextPages.ts';
import type { OpenPackage } from './openPackage.ts';
import { clipOf, pathOf, placeOf } from './odfShapes.ts';
import { OdfStyles, pointsOf } from './odfStyles.ts';
import { OdfTextDrawing } from './redrawOdfText.ts';

/** A typeface that is installed where a file is looked at. */
interface OdfFace {
  family: string;
  weight: number;
  style: 'normal' | 'italic';
  bytes: Uint8Array;
}

interface Outside {
  /** A picture in a folder beside the file. */
  beside(path: string): Promise<Uint8Array | undefined>;
  faces: readonly OdfFace[];
  /** How large a picture is, in pixels: crops are told by it. */
  sizeOf(bytes: Uint8Array): Promise<{ width: number; height: number }>;
}

const CSS = `html{background:#fff}body{margin:0;overflow-wrap:break-word}p{margin:0;white-space:pre-wrap;tab-size:3em}table{border-collapse:collapse;max-width:100%}td{vertical-align:top}a{color:inherit}.note{font-size:.9em}.begins::first-letter{float:left;font-size:3em;line-height:.85;padding-right:.08em}.contents{margin-bottom:2em}`;

const html = (drawn: string, faces: readonly OdfFace[], more = ''): string => {
  const asked = faces.filter(
    ({ family }) => drawn.includes(`font-family:'${family}'`) || drawn.includes(`font-family:&#39;${family}&#39;`),
  );
  const rules = asked.map(({ family, weight, style, bytes }) => {
    const src = `url(data:font/ttf;base64,${Buffer.from(bytes).toString('base64')})`;
    return `@font-face{font-family:'${family}';font-weight:${weight};font-style:${style};src:${src}}`;
  });
  return `<!doctype html><html><head><meta charset="utf-8"><style>${rules.join('\n')}${CSS}${more}</style></head><body>${drawn}</body></html>`;
};

/** A presentation of OpenDocument drawn from its bytes alone, a slide as a page of HTML; `page`: which page of the layout, counted from 1: a slide may show several. */
export async function redrawOdp(bytes: Uint8Array, page: number, outside: Outside): Promise<string> {
  const pack = await openPackage(bytes);
  const slides = childrenOf(child(child(pack.content, 'office:body'), 'office:presentation'), 'draw:page');
  let shown = 0;
  const at = slides.findIndex((s) => {
    shown += pagesNamed(s.attributes['draw:name']);
    return page <= shown;
  });
  const slide = slides[at];
  if (!slide) return html('', []);
  const pictures = await picturesOf(pack, outside);
  const master = childrenOf(child(pack.styles, 'office:master-styles'), 'style:master-page').find(
    (m) => m.attributes['style:name'] === slide.attributes['draw:master-page-name'],
  );
  const layout = childrenOf(child(pack.styles, 'office:automatic-styles'), 'style:page-layout').find(
    (l) => l.attributes['style:name'] === master?.attributes['style:page-layout-name'],
  );
  const size = child(layout, 'style:page-layout-properties')?.attributes ?? {};
  const [width, height] = [pointsOf(size['fo:page-width']), pointsOf(size['fo:page-height'])];
  const drawingOf = (own: Node | undefined): SlideDrawing => new SlideDrawing(pack, new OdfStyles(pack.styles, own), pictures, at + 1);
  const front = drawingOf(pack.content);
  const ownStyle = slide.attributes['draw:style-name'];
  const showsMaster = front.styles.get(
    'drawing-page',
    ownStyle,
    'style:drawing-page-properties',
    'presentation:background-objects-visible',
  );
  const behind = showsMaster === 'true' && master ? drawingOf(pack.styles).shapes(master) : '';
  const ground = front.ground(ownStyle, { x: 0, y: 0, width, height });
  const drawn = `<section style="position:relative;overflow:hidden;width:${width}pt;height:${height}pt">${ground}${behind}${front.shapes(slide)}</section>`;
  return html(drawn, outside.faces);
}

/**
 * An open text document drawn from its bytes alone, as a page of HTML: its own line breaks and pages come from there. `page`: which,
 * counted from 1, where it is laid out page by page.
 */
export async function redrawOdt(bytes: Uint8Array, page: number, outside: Outside): Promise<string> {
  const pack = await openPackage(bytes);
  const body = child(child(pack.content, 'office:body'), 'office:text');
  const pictures = await picturesOf(pack, outside);
  const pages = openTextPages(pack.content, pack.styles);
  if (pages.length) return html(drawTextPage(pack, pages, page, pictures), outside.faces);
  const text = new OdfTextDrawing(new OdfStyles(pack.styles, pack.content), { picture: (href) => pictures.get(href)?.src });
  const layout = child(child(pack.styles, 'office:automatic-styles'), 'style:page-layout');
  const a = child(layout, 'style:page-layout-properties')?.attributes ?? {};
  const sides = ['top', 'right', 'bottom', 'left'].map((side) => `${pointsOf(a[`fo:margin-${side}`] ?? a['fo:margin'])}pt`).join(' ');
  const drawn = body ? text.blocks(body) : '';
  return html(
    `${drawn}${text.notes()}`,
    outside.faces,
    `body{box-sizing:border-box;width:${pointsOf(a['fo:page-width'])}pt;padding:${sides}}`,
  );
}

/** A page of a text document whose things are anchored there, from back to front. Text that goes on in another box is moved up there by the boxes before it. */
function drawTextPage(pack: OpenPackage, pages: readonly OpenTextPage[], at: number, pictures: ReadonlyMap<string, Shown>): string {
  const page = pages[at - 1];
  if (!page) return '';
  const objects = pages.flatMap((p) => [...p.header, ...p.own]);
  const byName = new Map(objects.map(({ node }) => [node.attributes['draw:name'] ?? '', node]));
  const before = new Map(
    [...chainsIn(objects)].map(([name, names]) => {
      const boxes = names.flatMap((n) => byName.get(n) ?? []);
      const height = boxes.reduce((sum, n) => sum + pointsOf(n.attributes['svg:height']), 0);
      return [name, { first: child(boxes[0], 'draw:text-box'), height }] as const;
    }),
  );
  const drawing = (own: Node | undefined): SlideDrawing =>
    new SlideDrawing(pack, new OdfStyles(pack.styles, own), pictures, page.number, before);
  const [front, behind] = [drawing(pack.content), drawing(pack.styles)];
  const all = [...page.header.map((o) => ({ ...o, by: behind })), ...page.own.map((o) => ({ ...o, by: front }))];
  const inside = all.sort((a, b) => a.depth - b.depth).map(({ node, by }) => by.shape(node));
  return `<section style="position:relative;overflow:hidden;width:${page.width}pt;height:${page.height}pt">${inside.join('\n')}</section>`;
}

/** What a box of text goes on with: the box that has all of the text, and how high those before it are. */
interface GoesOn {
  first: Node | undefined;
  height: number;
}

interface Shown {
  src: string;
  /** Its own size, at 96 pixels to the inch, in points. */
  natural: { width: number; height: number };
}

/** Pictures by the addresses that the file has for them. */
async function picturesOf(pack: OpenPackage, { beside, sizeOf }: Outside): Promise<Map<string, Shown>> {
  const out = new Map<string, Shown>();
  const TYPES: Record<string, string> = { jpg: 'image/jpeg', png: 'image/png', svg: 'image/svg+xml', tiff: 'image/tiff' };
  const visit = async (node: Node): Promise<void> => {
    const href = node.name === 'draw:image' ? node.attributes['xlink:href'] : undefined;
    if (href !== undefined && !out.has(href)) {
      const bytes = href.startsWith('../') ? await beside(href.slice(3)) : pack.files.get(href);
      const type = TYPES[/\.(\w+)$/.exec(href)?.[1] ?? ''];
      const size = bytes && (await sizeOf(bytes).catch(() => null));
      if (bytes && type && size)
        out.set(href, {
          src: `data:${type};base64,${Buffer.from(bytes).toString('base64')}`,
          natural: { width: size.width * 0.75, height: size.height * 0.75 },
        });
    }
    for (const c of node.children) await visit(c);
  };
  for (const part of [pack.content, pack.styles]) if (part) await visit(part);
  return out;
}

class SlideDrawing {
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
    if (!/^draw:(frame|path|rect|custom-shape)$/.test(node.name)) return '';
    const { width, height, matrix } = placeOf(node, [1, 0, 0, 1, 0, 0]);
    const own = { x: 0, y: 0, width, height };
    const style = node.attributes['draw:style-name'];
    const get = (property: string): string | undefined => this.styles.graphic(style, property);
    const path = (node.name === 'draw:path' && pathOf(node, own)) || rectPath(own);
    const image = child(node, 'draw:image');
    const table = child(node, 'table:table');
    const body = child(node, 'draw:text-box');
    const inside = [
      this.outline(get, pathData(path), own),
      image ? this.picture(node, image, own, get) : '',
      table ? this.text.blocks({ ...node, children: [table] }) : '',
      body ? this.words(body, get, this.chains.get(node.attributes['draw:name'] ?? '')) : '',
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
    const stroke = (get('draw:stroke') ?? 'none') !== 'none' ? get('svg:stroke-color') : undefined;
    if (kind === 'none' && !stroke) return '';
    const id = `o${++this.gradients}-${Math.round(width * 100)}`;
    const gradient = kind === 'gradient' ? this.gradient(get('draw:fill-gradient-name'), id) : '';
    const fill = gradient ? `url(#${id})` : kind === 'solid' ? (get('draw:fill-color') ?? 'none') : 'none';
    const dash = this.dashes(get('draw:stroke-dash'));
    const line = stroke ? ` stroke="${stroke}" stroke-width="${pointsOf(get('svg:stroke-width'))}"${dash}` : '';
    const [w, h] = [width || 1, height || 1];
    const shadow =
      get('draw:shadow') === 'visible'
        ? `;filter:drop-shadow(${pointsOf(get('draw:shadow-offset-x'))}pt ${pointsOf(get('draw:shadow-offset-y'))}pt 0 ${withOpacity(get('draw:shadow-color'), get('draw:shadow-opacity'))})`
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
    const [from, to] = [a['draw:start-color'] ?? '#000', a['draw:end-color'] ?? '#fff'];
    const stops = (first: string, last: string): string =>
      `<stop offset="0" stop-color="${first}"/><stop offset="1" stop-color="${last}"/>`;
    if (a['draw:style'] === 'radial')
      return `<radialGradient id="${id}" cx="${a['draw:cx'] ?? '50%'}" cy="${a['draw:cy'] ?? '50%'}" r="75%">${stops(to, from)}</radialGradient>`;
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
