import type { Item } from '../../folio/items.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import { boundsOfPath, pathData } from '../../folio/geometry.ts';
import type { Head } from '../../folio/head.ts';
import { effectFilter, effectReach, hasEffects, reachedInBox, turnedBack } from '../effects.ts';
import type { ComposedFrame } from '../../compose/marks.ts';
import { outlineOf } from '../boxPath.ts';
import { pathElement } from '../svg/fillAndStroke.ts';
import { frameBoxes, GlyphOutlines, lineGlyphs } from '../svg/glyphs.ts';
import { attrs, num } from '../svg/markup.ts';
import { px } from './metrics.ts';
import type { LookSheet } from './styleSheet.ts';

export interface ItemPlacement {
  /** Position in the painting order of the page. */
  z: number;
  /** Where the page's top left lies on the spread. */
  origin: { x: number; y: number };
  /** The item's opacity with that of the groups around it. */
  opacity: number;
}

/** Place, turn and order of a box as CSS. */
export function boxStyle([a, b, c, d, e, f]: Matrix, box: Rect, { origin, z }: Pick<ItemPlacement, 'origin' | 'z'>): string {
  const [x, y] = [px(a * box.x + c * box.y + e - origin.x), px(b * box.x + d * box.y + f - origin.y)];
  const turned = a !== 1 || b !== 0 || c !== 0 || d !== 1;
  return [
    `left:${num(x, 4)}px`,
    `top:${num(y, 4)}px`,
    `width:${num(px(box.width), 4)}px`,
    `height:${num(px(box.height), 4)}px`,
    `z-index:${z}`,
    ...(turned ? [`transform:matrix(${[a, b, c, d].map((n) => num(n, 6)).join(',')},0,0)`] : []),
  ].join(';');
}

/** Box, transform, order and transparency of an item as CSS. */
export function itemStyle(item: Exclude<Item, { kind: 'group' }>, size: { width: number; height: number }, place: ItemPlacement): string {
  // The box of a shape begins where its outline does: filters go by boxes.
  const from = item.kind === 'shape' ? boundsOfPath(item.path) : { x: 0, y: 0 };
  return [
    boxStyle(item.transform, { ...from, ...size }, place),
    ...(place.opacity === 1 ? [] : [`opacity:${num(place.opacity, 4)}`]),
    ...(item.blend === 'normal' ? [] : [`mix-blend-mode:${item.blend}`]),
    ...(hasEffects(item.effects) ? [`filter:url(#${item.id}-fx)`] : []),
  ].join(';');
}

/** The filter that shows an item's effects, defined in the page beside it. */
export function itemFilter(item: Exclude<Item, { kind: 'group' }>, size: { width: number; height: number }, head: Head): string {
  if (!hasEffects(item.effects)) return '';
  const reach = px(effectReach(item.effects));
  const region = reachedInBox(px(size.width), px(size.height), reach);
  const space = { region, inBox: true, scale: px(1), shift: turnedBack(item.transform) };
  return `<svg class="o" width="0" height="0" aria-hidden="true"><defs>${effectFilter(`${item.id}-fx`, item.effects, 'all', space, head.swatches)}</defs></svg>`;
}

/** Fill and stroke of an item as an SVG that lies under its content and may paint over its edge. */
export function outlineSvg(item: Exclude<Item, { kind: 'group' }>, head: Head, what: 'fill' | 'stroke' | 'both'): string {
  const path = outlineOf(item);
  const fill = what === 'stroke' ? { type: 'none' as const } : item.fill;
  const stroke = what === 'fill' ? null : item.stroke;
  const element = pathElement(`${item.id}-${what}`, path, fill, stroke, head.swatches, item.kind === 'shape' ? item.fillRule : 'nonzero');
  if (!element) return '';
  const box = boundsOfPath(path);
  // Browsers show nothing of a picture that is thinner than a part of a pixel, not even what reaches out of it: a straight line.
  const view = [box.x, box.y, Math.max(box.width, 1), Math.max(box.height, 1)];
  const [left, top] = item.kind === 'shape' ? [0, 0] : [box.x, box.y];
  const style = `left:${num(px(left), 4)}px;top:${num(px(top), 4)}px`;
  return `<svg${attrs({ class: 'o', style, width: num(px(view[2]!), 4), height: num(px(view[3]!), 4), viewBox: view.map((n) => num(n, 4)).join(' '), preserveAspectRatio: 'none', 'aria-hidden': 'true' })}>${element}</svg>`;
}

/** On long pages, pictures are fetched when they come near. */
export const LAZY = { loading: 'lazy', decoding: 'async' };

/** A picture's file, and the same in several widths as `srcset` has them. */
export interface PictureSource {
  src: string;
  srcset?: string;
  /** How wide its page is, in points, where pages are as wide as the window. */
  pageWidth?: number;
}

/** A picture, cropped by its box or its clipping path. */
export function pictureMarkup(
  item: Item & { kind: 'picture' },
  { src, srcset, pageWidth }: PictureSource,
  alt: string,
  lazy: boolean,
): string {
  const [a, b, c, d, e, f] = item.placement;
  const upright = b === 0 && c === 0 && a > 0 && d > 0;
  const style = upright
    ? `left:${num(px(e), 4)}px;top:${num(px(f), 4)}px;width:${num(px(a), 4)}px;height:${num(px(d), 4)}px`
    : `left:${num(px(e), 4)}px;top:${num(px(f), 4)}px;width:1000px;height:1000px;transform:matrix(${[a, b, c, d].map((n) => num(px(n) / 1000, 8)).join(',')},0,0)`;
  // Turned pictures are laid out in a square of their own, and where pages are zoomed browsers take the size before that: then
  // only the real width says which picture is needed.
  const width = shownWidth(item.placement, item.transform);
  const shown = pageWidth ? `${num((100 * width) / pageWidth, 0)}vw` : `${num(px(width), 0)}px`;
  const path = item.clip ?? (item.corner ? outlineOf(item) : undefined);
  const clip = path
    ? `clip-path:path('${pathData(path.map((s) => [s[0], ...s.slice(1).map((n) => px(n as number))] as typeof s))}')`
    : undefined;
  return `<div${attrs({ class: 'c', style: clip })}><img${attrs({ src, srcset, sizes: srcset && (lazy && upright && !pageWidth ? `auto, ${shown}` : shown), alt, style, ...(lazy && LAZY) })}/></div>`;
}

/** Rules, shadings, borders and cells of a text, under its letters. */
export function textBoxes(frame: ComposedFrame, item: Item & { kind: 'textFrame' }, head: Head): string {
  const boxes = frameBoxes(frame, head.swatches);
  if (!boxes) return '';
  const { width, height } = item.size;
  return `<svg${attrs({ class: 'o', style: 'left:0;top:0', width: num(px(width), 4), height: num(px(height), 4), viewBox: `0 0 ${num(Math.max(width, 0.01), 4)} ${num(Math.max(height, 0.01), 4)}`, 'aria-hidden': 'true' })}>${boxes}</svg>`;
}

/** Letters that are drawn as shapes over their live but unseen text: all, or those of fonts that may not be embedded. */
export function drawnLetters(frame: ComposedFrame, item: Item & { kind: 'textFrame' }, head: Head, looks: LookSheet): string {
  const lines = frame.lines.map((l) => ({ ...l, runs: l.runs.filter((r) => looks.isDrawn(r.font)) })).filter((l) => l.runs.length);
  if (!lines.length) return '';
  const outlines = new GlyphOutlines(`${item.id}-g`);
  const glyphs = lines.map((l) => lineGlyphs(l, outlines, head.swatches)).join('');
  const { width, height } = item.size;
  return `<svg${attrs({ class: 'o', style: 'left:0;top:0', width: num(px(width), 4), height: num(px(height), 4), viewBox: `0 0 ${num(width, 4)} ${num(height, 4)}`, 'aria-hidden': 'true' })}><defs>${outlines.take()}</defs>${glyphs}</svg>`;
}

/** The transform of a picture's placement on the page, for telling the size at which it is shown. */
export const shownWidth = (placement: Matrix, transform: Matrix): number =>
  Math.hypot(placement[0], placement[1]) * Math.hypot(transform[0], transform[1]);
