import { pathData } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { anchorBox, anchorsIn, drawnShape, outlineIn, wholePicture } from './drawnShape.ts';
import { child, childrenOf, within } from './officeParts.ts';
import type { Node } from './officeParts.ts';
import type { OpenWord } from './openWord.ts';
import { escape, points } from './redrawText.ts';
import type { TextDrawing } from './redrawText.ts';
import { picturesOf } from './wordImages.ts';
import { wordPages } from './wordPages.ts';
import type { WordSection } from './wordPages.ts';

/** Whether a document has its text in placed boxes. */
export const isLaidOut = (body: Node): boolean =>
  body.children.some((n) => anchorsIn(n).some((a) => [...within(a)].some((x) => x.name === 'wps:txbx')));

/** A page of placed boxes: outlines, pictures and text, from back to front. Text that goes on in another box is moved up there by the boxes before it. */
export async function drawPage(
  word: OpenWord,
  body: Node,
  number: number,
  text: TextDrawing,
  beside: (path: string) => Promise<Uint8Array | undefined>,
): Promise<string> {
  const sections = wordPages(body);
  const here = sections[number - 1];
  if (!here) return '';
  const size = child(here.section, 'w:pgSz')?.attributes ?? {};
  const header = child(here.section, 'w:headerReference')?.attributes['r:id'];
  const headerPath = header === undefined ? undefined : word.relations(word.main).get(header)?.target;
  const parts = [
    ...(headerPath === undefined || !word.part(headerPath) ? [] : [{ path: headerPath, nodes: word.part(headerPath)!.children }]),
    { path: word.main, nodes: here.nodes },
  ];
  text.pageNumber = here.number;
  const chains = chainsIn(sections);
  const drawn: { z: number; html: string }[] = [];
  for (const { path, nodes } of parts) {
    const pictures = await picturesOf(word, beside, path);
    for (const anchor of nodes.flatMap(anchorsIn)) {
      const own = anchorBox(anchor);
      if (own) drawn.push({ z: Number(anchor.attributes['relativeHeight'] ?? 0), html: drawAnchor(anchor, own, pictures, chains, text) });
    }
  }
  const inside = drawn.sort((a, b) => a.z - b.z).map((d) => d.html);
  const paper = `position:relative;overflow:hidden;width:${points(size['w:w'])}pt;height:${points(size['w:h'])}pt`;
  return `<section style="${paper}">${inside.join('\n')}</section>`;
}

interface Chain {
  content: Node | undefined;
  /** Heights of its boxes, in points, the first of them first. */
  heights: number[];
}
function chainsIn(sections: readonly WordSection[]): Map<string, Chain> {
  const out = new Map<string, Chain>();
  const chain = (id: string): Chain => {
    let known = out.get(id);
    if (!known) out.set(id, (known = { content: undefined, heights: [] }));
    return known;
  };
  for (const anchor of sections.flatMap((s) => s.nodes.flatMap(anchorsIn)))
    for (const n of within(anchor)) {
      const { id, seq } = n.attributes;
      if (id === undefined || (n.name !== 'wps:txbx' && n.name !== 'wps:linkedTxbx')) continue;
      chain(id).heights[Number(seq ?? 0)] = anchorBox(anchor)?.height ?? 0;
      if (n.name === 'wps:txbx') chain(id).content = child(n, 'w:txbxContent');
    }
  return out;
}

function drawAnchor(
  anchor: Node,
  own: Rect,
  pictures: ReadonlyMap<string, string>,
  chains: ReadonlyMap<string, Chain>,
  text: TextDrawing,
): string {
  const all = [...within(anchor)];
  const spPr = all.find((n) => n.name === 'wps:spPr' || n.name === 'pic:spPr');
  const { rot, flipV } = child(spPr, 'a:xfrm')?.attributes ?? {};
  const turned = [rot && `rotate(${Number(rot) / 60_000}deg)`, flipV === '1' && 'scaleY(-1)'].filter(Boolean).join(' ');
  const place = `position:absolute;left:${own.x}pt;top:${own.y}pt;width:${own.width}pt;height:${own.height}pt${turned && `;transform:${turned}`}`;
  const boxed = all.find((n) => n.name === 'wps:txbx' || n.name === 'wps:linkedTxbx');
  if (boxed) return textBox(boxed, place, all.find((n) => n.name === 'wps:bodyPr')?.attributes['anchor'] ?? 't', chains, text);
  const fill = all.find((n) => n.name === 'pic:blipFill');
  const blip = child(fill, 'a:blip')?.attributes;
  const src = pictures.get(blip?.['r:embed'] ?? blip?.['r:link'] ?? '');
  const outline = shapeSvg(spPr, own);
  if (!src) return `<div style="${place}">${outline}</div>`;
  const whole = wholePicture({ ...own, x: 0, y: 0 }, fill);
  const alt = escape(child(anchor, 'wp:docPr')?.attributes['descr'] ?? '');
  const clip = `clip-path:path('${pathData(outlineIn(spPr, { ...own, x: 0, y: 0 }).map((s) => s.map((n) => (typeof n === 'number' ? (n * 96) / 72 : n)) as typeof s))}')`;
  const at = `position:absolute;max-width:none;left:${whole.x}pt;top:${whole.y}pt;width:${whole.width}pt;height:${whole.height}pt`;
  return `<div style="${place}"><div style="position:absolute;inset:0;${clip}"><img src="${src}" alt="${alt}" style="${at}"></div>${outline}</div>`;
}

const ALIGNED: Record<string, string> = { t: 'start', ctr: 'center', b: 'end' };

function textBox(boxed: Node, place: string, anchor: string, chains: ReadonlyMap<string, Chain>, text: TextDrawing): string {
  const { id, seq } = boxed.attributes;
  const chain = id === undefined ? undefined : chains.get(id);
  const content = chain ? chain.content : child(boxed, 'w:txbxContent');
  if (!content) return '';
  const before = (chain?.heights ?? []).slice(0, Number(seq ?? 0)).reduce((a, b) => a + b, 0);
  const inside = `<div style="margin-top:${-before}pt">${text.blocks(content)}</div>`;
  const flows = chain ? 'overflow:hidden' : `display:grid;align-content:${ALIGNED[anchor] ?? 'start'}`;
  return `<div style="${place};${flows}">${inside}</div>`;
}

let gradients = 0;

/** An outline with its paint, in its own box. */
function shapeSvg(spPr: Node | undefined, own: Rect): string {
  const here = { ...own, x: 0, y: 0 };
  const { fill, stroke } = drawnShape(spPr, here);
  if (!fill && !stroke) return '';
  const line = child(spPr, 'a:ln');
  const weight = Number(line?.attributes['w'] ?? 0) / 12_700;
  const gradient = child(spPr, 'a:gradFill');
  const id = `g${++gradients}`;
  const alpha = child(child(child(spPr, 'a:solidFill'), 'a:srgbClr'), 'a:alpha')?.attributes['val'];
  const paint = gradient ? `url(#${id})` : (fill ?? 'none');
  const dashes = childrenOf(child(line, 'a:custDash'), 'a:ds').flatMap(({ attributes: a }) =>
    [Number(a['d']), Number(a['sp'])].map((n) => (n / 100_000) * weight),
  );
  const strokes = stroke
    ? ` stroke="${stroke === 'gradient' ? '#888' : stroke}" stroke-width="${weight}"${dashes.length ? ` stroke-dasharray="${dashes.join(' ')}"` : ''}`
    : '';
  const opacity = alpha === undefined ? '' : ` fill-opacity="${Number(alpha) / 100_000}"`;
  const shadow = [...(spPr ? within(spPr) : [])].find((n) => n.name === 'a:outerShdw');
  const svg = `<path d="${pathData(outlineIn(spPr, here))}" fill="${paint}" fill-rule="evenodd"${opacity}${strokes}/>`;
  const size = `width="${own.width}pt" height="${own.height}pt" viewBox="0 0 ${own.width || 1} ${own.height || 1}"`;
  return `<svg ${size} style="position:absolute;inset:0;overflow:visible${shadow ? `;filter:${shadowOf(shadow)}` : ''}">${gradient ? gradientSvg(gradient, id, own) : ''}${svg}</svg>`;
}

function shadowOf(shadow: Node): string {
  const { blurRad, dist, dir } = shadow.attributes;
  const [far, angle] = [Number(dist ?? 0) / 12_700, (Number(dir ?? 0) / 60_000) * (Math.PI / 180)];
  const colour = child(shadow, 'a:srgbClr');
  const alpha = Number(child(colour, 'a:alpha')?.attributes['val'] ?? 100_000) / 100_000;
  const hex = Math.round(alpha * 255)
    .toString(16)
    .padStart(2, '0');
  return `drop-shadow(${far * Math.cos(angle)}pt ${far * Math.sin(angle)}pt ${Number(blurRad ?? 0) / 25_400}pt #${colour?.attributes['val'] ?? '000000'}${hex})`;
}

/** Linear from one corner to the other in its direction, round from its middle to the farthest corner (20.1.8.41, 20.1.8.46). */
function gradientSvg(gradient: Node, id: string, { width, height }: Rect): string {
  const stops = childrenOf(child(gradient, 'a:gsLst'), 'a:gs').map((s) => {
    const colour = child(s, 'a:srgbClr');
    const alpha = child(colour, 'a:alpha')?.attributes['val'];
    return `<stop offset="${Number(s.attributes['pos']) / 100_000}" stop-color="#${colour?.attributes['val']}"${alpha === undefined ? '' : ` stop-opacity="${Number(alpha) / 100_000}"`}/>`;
  });
  const [cx, cy] = [width / 2, height / 2];
  const linear = child(gradient, 'a:lin');
  if (linear) {
    const a = (Number(linear.attributes['ang'] ?? 0) / 60_000) * (Math.PI / 180);
    const half = (Math.abs(width * Math.cos(a)) + Math.abs(height * Math.sin(a))) / 2;
    const [dx, dy] = [Math.cos(a) * half, Math.sin(a) * half];
    return `<linearGradient id="${id}" gradientUnits="userSpaceOnUse" x1="${cx - dx}" y1="${cy - dy}" x2="${cx + dx}" y2="${cy + dy}">${stops.join('')}</linearGradient>`;
  }
  const to = child(child(gradient, 'a:path'), 'a:fillToRect')?.attributes ?? {};
  const [x, y] = [(Number(to['l'] ?? 50_000) / 100_000) * width, (Number(to['t'] ?? 50_000) / 100_000) * height];
  const r = Math.hypot(Math.max(x, width - x), Math.max(y, height - y));
  return `<radialGradient id="${id}" gradientUnits="userSpaceOnUse" cx="${x}" cy="${y}" r="${r}">${stops.join('')}</radialGradient>`;
}
