import { pointsOfEmu } from '../../packages/emu.ts';
import { pathData } from '../../folio/geometry.ts';
import type { Path, Rect } from '../../folio/geometry.ts';
import { drawnShape, outlineIn, wholePicture } from '../../packages/drawingmlShape.ts';
import { child, childrenOf, within } from '../../packages/officeParts.ts';
import type { Node } from '../../packages/officeParts.ts';
import { escape } from './redrawText.ts';
import { colourIn } from '../drawnPage.ts';

/** Where a shape stands, and how it is turned. */
export function placeStyle(spPr: Node | undefined, own: Rect): string {
  const { rot, flipV, flipH } = child(spPr, 'a:xfrm')?.attributes ?? {};
  const turned = [rot && `rotate(${Number(rot) / 60_000}deg)`, flipV === '1' && 'scaleY(-1)', flipH === '1' && 'scaleX(-1)']
    .filter(Boolean)
    .join(' ');
  return `position:absolute;left:${own.x}pt;top:${own.y}pt;width:${own.width}pt;height:${own.height}pt${turned && `;transform:${turned}`}`;
}

/** A picture in its shape: what of it is cut away is not seen. */
export function pictureHtml(src: string, alt: string, spPr: Node | undefined, fill: Node | undefined, own: Rect): string {
  const here = { ...own, x: 0, y: 0 };
  const whole = wholePicture(here, fill);
  const inPixels = outlineIn(spPr, here).map((s) => s.map((n) => (typeof n === 'number' ? (n * 96) / 72 : n))) as Path;
  const shows = child(child(fill, 'a:blip'), 'a:alphaModFix')?.attributes['amt'];
  const opacity = shows === undefined ? '' : `opacity:${Number(shows) / 100_000};`;
  const at = `${opacity}position:absolute;max-width:none;left:${whole.x}pt;top:${whole.y}pt;width:${whole.width}pt;height:${whole.height}pt`;
  return `<div style="position:absolute;inset:0;clip-path:path('${pathData(inPixels)}')"><img src="${src}" alt="${escape(alt)}" style="${at}"></div>`;
}

let gradients = 0;

/** An outline with its paint, in its own box. */
export function shapeSvg(spPr: Node | undefined, own: Rect): string {
  const here = { ...own, x: 0, y: 0 };
  const { fill, stroke } = drawnShape(spPr, here);
  if (!fill && !stroke) return '';
  const line = child(spPr, 'a:ln');
  const weight = pointsOfEmu(line?.attributes['w']);
  const gradient = child(spPr, 'a:gradFill');
  const id = `g${++gradients}`;
  const alpha = child(child(child(spPr, 'a:solidFill'), 'a:srgbClr'), 'a:alpha')?.attributes['val'];
  const paint = gradient ? `url(#${id})` : (colourIn(fill) ?? 'none');
  const dashes = childrenOf(child(line, 'a:custDash'), 'a:ds').flatMap(({ attributes: a }) =>
    [Number(a['d']), Number(a['sp'])].map((n) => (n / 100_000) * weight),
  );
  const strokes = stroke
    ? ` stroke="${stroke === 'gradient' ? '#888' : colourIn(stroke)}" stroke-width="${weight}"${dashes.length ? ` stroke-dasharray="${dashes.join(' ')}"` : ''}`
    : '';
  const opacity = alpha === undefined ? '' : ` fill-opacity="${Number(alpha) / 100_000}"`;
  const shadow = [...(spPr ? within(spPr) : [])].find((n) => n.name === 'a:outerShdw');
  const svg = `<path d="${pathData(outlineIn(spPr, here))}" fill="${paint}" fill-rule="evenodd"${opacity}${strokes}/>`;
  // A drawing without height or width is none to browsers; a straight line is seen all the same.
  const [w, h] = [own.width || 1, own.height || 1];
  const size = `width="${w}pt" height="${h}pt" viewBox="0 0 ${w} ${h}"`;
  return `<svg ${size} style="position:absolute;inset:0;overflow:visible${shadow ? `;filter:${shadowOf(shadow)}` : ''}">${gradient ? gradientSvg(gradient, id, own) : ''}${svg}</svg>`;
}

function shadowOf(shadow: Node): string {
  const { blurRad, dist, dir } = shadow.attributes;
  const [far, angle] = [pointsOfEmu(dist), (Number(dir ?? 0) / 60_000) * (Math.PI / 180)];
  const colour = child(shadow, 'a:srgbClr');
  const alpha = Number(child(colour, 'a:alpha')?.attributes['val'] ?? 100_000) / 100_000;
  const hex = Math.round(alpha * 255)
    .toString(16)
    .padStart(2, '0');
  return `drop-shadow(${far * Math.cos(angle)}pt ${far * Math.sin(angle)}pt ${Number(blurRad ?? 0) / 25_400}pt #${colourIn(colour?.attributes['val']) ?? '000000'}${hex})`;
}

/** Linear from one corner to the other in its direction, round from its middle to the farthest corner (20.1.8.41, 20.1.8.46). */
function gradientSvg(gradient: Node, id: string, { width, height }: Rect): string {
  const stops = childrenOf(child(gradient, 'a:gsLst'), 'a:gs').map((s) => {
    const colour = child(s, 'a:srgbClr');
    const alpha = child(colour, 'a:alpha')?.attributes['val'];
    return `<stop offset="${Number(s.attributes['pos']) / 100_000}" stop-color="#${colourIn(colour?.attributes['val'])}"${alpha === undefined ? '' : ` stop-opacity="${Number(alpha) / 100_000}"`}/>`;
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
