import type { Composition } from '../../compose/marks.ts';
import type { Folio } from '../../folio/folio.ts';
import type { Paint } from '../../folio/colour.ts';
import type { Item } from '../../folio/items.ts';
import type { Page, Spread } from '../../folio/spread.ts';
import { isUpright, pathData, rectPath } from '../../folio/geometry.ts';
import type { Matrix, Rect } from '../../folio/geometry.ts';
import { itemBounds, paintOrder } from '../../folio/traverse.ts';
import { areaOf } from '../../motion/flakes.ts';
import { outlineOf } from '../boxPath.ts';
import { effectFilter, effectReach, hasEffects, reachedBy, unturned } from '../effects.ts';
import { pathElement } from './fillAndStroke.ts';
import { frameBoxes, GlyphOutlines, lineGlyphs } from './glyphs.ts';
import { attrs, num } from './markup.ts';

export interface SvgOptions {
  /** The address of a media file, or undefined where it cannot be shown. */
  href: (media: string) => string | undefined;
  shown: (item: Item) => boolean;
  /** Where outlines of glyphs are defined once and referred to; null: each run of glyphs is a path of its own. */
  outlines: GlyphOutlines | null;
  /** Whether nothing marks the places of what is not there: readers see none. */
  forReaders?: boolean;
}

/** A top-level item of a spread as SVG; equal markup means nothing of it changed. */
export interface PaintedItem {
  item: string;
  svg: string;
  /** The lines of a text that is painted for a screen, each by itself: they belong into the last element of `svg` that is empty. */
  lines?: string[];
}

/** Where the lines of a text stand in its markup. */
const LINES = '<g class="lines"></g>';

/** All of an item’s markup in one piece. */
export const markupOf = ({ svg, lines }: PaintedItem): string =>
  lines ? svg.replace(LINES, () => `<g class="lines">${lines.map((l) => `<g>${l}</g>`).join('')}</g>`) : svg;

const GREY: Paint = { type: 'colour', colour: { space: 'grey', value: 0.5 } };

const matrixAttribute = (m: Matrix): string | undefined =>
  isUpright(m) && !m[4] && !m[5] ? undefined : `matrix(${m.map((n) => num(n, 5)).join(' ')})`;

/** Every shown item of a spread, back to front, as SVG in spread coordinates. */
export function paintItems(folio: Folio, composition: Composition, spread: Spread, options: SvgOptions): PaintedItem[] {
  return paintOrder(folio, spread)
    .filter(options.shown)
    .map((item) => paintTop(folio, composition, spread, item, options));
}

/** One top-level item. The lines of a text come apart for a screen: a letter that is typed changes few of them. */
export function paintTop(folio: Folio, composition: Composition, spread: Pick<Spread, 'items'>, item: Item, o: SvgOptions): PaintedItem {
  const frame = item.kind === 'textFrame' && o.outlines === null ? composition.frames.get(item.id) : undefined;
  if (!frame) return { item: item.id, svg: paintItem(folio, composition, spread, item, o) };
  const bare = { ...composition, frames: new Map([[item.id, { ...frame, lines: [] }]]) };
  return {
    item: item.id,
    svg: paintItem(folio, bare, spread, item, o),
    lines: frame.lines.map((l) => lineGlyphs(l, null, folio.head.swatches)),
  };
}

/** One item, and what it holds, as SVG in spread coordinates. */
export function paintItem(
  folio: Folio,
  composition: Composition,
  spread: Pick<Spread, 'items'>,
  item: Item,
  o: SvgOptions,
  depth = 0,
): string {
  const style = item.blend === 'normal' ? undefined : `mix-blend-mode:${item.blend}`;
  const fx = hasEffects(item.effects);
  const shell = {
    'data-item': item.id,
    opacity: item.opacity === 1 ? undefined : item.opacity,
    style,
    filter: fx ? `url(#${item.id}-fx)` : undefined,
  };
  const filter = fx ? `<defs>${filterOf(folio, spread, item)}</defs>` : '';
  if (item.kind === 'group') {
    const members =
      depth > 32 ? [] : item.members.flatMap((id) => (spread.items[id] && o.shown(spread.items[id]) ? [spread.items[id]] : []));
    return `${filter}<g${attrs(shell)}>${members.map((m) => paintItem(folio, composition, spread, m, o, depth + 1)).join('')}</g>`;
  }
  if (item.kind === 'switcher') {
    const held =
      depth > 32
        ? []
        : (item.cards[0]?.items ?? []).flatMap((id) => (spread.items[id] && o.shown(spread.items[id]) ? [spread.items[id]] : []));
    const ground = `<g${attrs({ transform: matrixAttribute(item.transform) })}>${pathElement(item.id, outlineOf(item), item.fill, item.stroke, folio.head.swatches)}</g>`;
    return `${filter}<g${attrs(shell)}>${ground}${held.map((m) => paintItem(folio, composition, spread, m, o, depth + 1)).join('')}</g>`;
  }
  const { swatches } = folio.head;
  const rule = item.kind === 'shape' ? item.fillRule : 'nonzero';
  const path = outlineOf(item);
  const over = item.kind === 'picture';
  // A veil is shown as it is at first, all its flakes in place.
  const fill = item.kind === 'veil' && item.fill.type === 'none' ? GREY : item.fill;
  const inner =
    pathElement(item.id, item.kind === 'veil' ? areaOf(item) : path, fill, over ? null : item.stroke, swatches, rule) +
    content(folio, composition, item, o) +
    (over ? pathElement(`${item.id}-edge`, path, { type: 'none' }, item.stroke, swatches) : '');
  // A filter works in the page's own space, outside the item's transform: shadows fall the same way everywhere.
  const turned = attrs({ transform: matrixAttribute(item.transform) });
  return fx ? `${filter}<g${attrs(shell)}><g${turned}>${inner}</g></g>` : `<g${attrs(shell)}${turned}>${inner}</g>`;
}

const filterOf = (folio: Folio, spread: Pick<Spread, 'items'>, item: Item): string =>
  effectFilter(
    `${item.id}-fx`,
    item.effects,
    'all',
    { region: reachedBy(itemBounds(spread.items, item), effectReach(item.effects)), scale: 1, shift: unturned },
    folio.head.swatches,
  );

function content(folio: Folio, composition: Composition, item: Item, o: SvgOptions): string {
  if (item.kind === 'textFrame') {
    const frame = composition.frames.get(item.id);
    if (!frame) return '';
    const lines = frame.lines.map((l) => lineGlyphs(l, o.outlines, folio.head.swatches)).join('');
    return frameBoxes(frame, folio.head.swatches) + (o.outlines || lines ? lines : LINES);
  }
  if (item.kind === 'picture') {
    const href = item.media === null ? undefined : o.href(item.media);
    const clip = `<clipPath id="${item.id}-clip"><path d="${pathData(item.clip ?? outlineOf(item))}"/></clipPath>`;
    if (!href) return placeholder(item.size, o);
    return `<defs>${clip}</defs><g clip-path="url(#${item.id}-clip)"><image${attrs({ href, width: 1, height: 1, preserveAspectRatio: 'none', transform: matrixAttribute(item.placement) })}/></g>`;
  }
  if ((item.kind === 'media' || item.kind === 'embed') && item.poster) {
    const href = o.href(item.poster);
    return href
      ? `<image${attrs({ href, width: item.size.width, height: item.size.height, preserveAspectRatio: 'xMidYMid slice' })}/>`
      : placeholder(item.size, o);
  }
  return '';
}

/** A crossed box where something should be but is not there. */
const placeholder = ({ width: w, height: h }: { width: number; height: number }, { forReaders }: SvgOptions): string =>
  forReaders
    ? ''
    : `<path d="M0 0H${num(w)}V${num(h)}H0ZM0 0L${num(w)} ${num(h)}M${num(w)} 0L0 ${num(h)}" fill="#ECE7DC" stroke="#A83E22" stroke-width="1"/>`;

/** Paper and background of a page, in spread coordinates. */
export function paintPaper(folio: Folio, page: Page): string {
  return (
    `<path d="${pathData(rectPath(page.box))}" fill="#fff"/>` +
    pathElement(`${page.id}-ground`, rectPath(page.box), page.background, null, folio.head.swatches)
  );
}

/** A whole picture of a spread, or of one page of it, as an SVG file of its own. */
export function spreadPicture(
  folio: Folio,
  composition: Composition,
  spread: Spread,
  view: Rect,
  widthPx: number,
  options: Omit<SvgOptions, 'outlines'>,
): string {
  const outlines = new GlyphOutlines();
  const items = paintItems(folio, composition, spread, { ...options, outlines });
  const pages = spread.pages.map((p) => paintPaper(folio, p)).join('');
  const clip = spread.pages.map((p) => pathData(rectPath(p.box))).join('');
  return (
    `<svg xmlns="http://www.w3.org/2000/svg"${attrs({ width: widthPx, height: (widthPx * view.height) / view.width, viewBox: [view.x, view.y, view.width, view.height].map((n) => num(n)).join(' ') })}>` +
    `<defs>${outlines.take()}<clipPath id="pages"><path d="${clip}"/></clipPath></defs>${pages}<g clip-path="url(#pages)">${items.map((i) => i.svg).join('')}</g></svg>`
  );
}
