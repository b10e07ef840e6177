import type { FontFace } from '../../compose/fontFace.ts';
import type { ComposedFrame, GlyphRun, SetLine } from '../../compose/marks.ts';
import type { Paint, Swatch } from '../../folio/colour.ts';
import { rectPath } from '../../folio/geometry.ts';
import { boxStroke } from '../boxPath.ts';
import { pathElement } from './fillAndStroke.ts';
import { solidHex } from '../../folio/colour.ts';
import { attrs, num } from './markup.ts';

/** Glyph outlines that a picture needs, each defined once and drawn by reference. */
export class GlyphOutlines {
  private readonly fonts = new Map<FontFace, number>();
  private readonly defined = new Map<string, string>();
  private fresh: string[] = [];

  constructor(private readonly prefix = 'g') {}

  /** The id of a glyph's outline, or null where it draws nothing. */
  use(font: FontFace, gid: number): string | null {
    let n = this.fonts.get(font);
    if (n === undefined) this.fonts.set(font, (n = this.fonts.size));
    const id = `${this.prefix}${n}-${gid}`;
    const known = this.defined.get(id);
    if (known !== undefined) return known || null;
    const d = font.outline(gid);
    this.defined.set(id, d ? id : '');
    if (d) this.fresh.push(`<path id="${id}" d="${d}"/>`);
    return d ? id : null;
  }

  /** Definitions made since the last call. */
  take(): string {
    const out = this.fresh.join('');
    this.fresh = [];
    return out;
  }
}

const relative = new WeakMap<FontFace, Map<number, string>>();

/** A glyph's outline as path data that can follow any point: all of it is relative to that point. Empty where it draws nothing. */
function relativeOutline(font: FontFace, gid: number): string {
  let known = relative.get(font);
  if (!known) relative.set(font, (known = new Map()));
  let d = known.get(gid);
  if (d === undefined) known.set(gid, (d = toRelative(font.outline(gid))));
  return d;
}

/** Path data of absolute M, L, Q, C and Z as relative ones (SVG 2, 9.3): `z` goes back to where its subpath began. */
function toRelative(d: string): string {
  let out = '';
  let [x, y, startX, startY] = [0, 0, 0, 0];
  for (const [, command = '', rest = ''] of d.matchAll(/([MLQCZ])([^MLQCZ]*)/g)) {
    if (command === 'Z') {
      out += 'z';
      [x, y] = [startX, startY];
      continue;
    }
    const values = rest.match(/-?[\d.]+/g)!.map(Number);
    out += command.toLowerCase() + values.map((v, i) => num(v - (i % 2 ? y : x), 2)).join(' ');
    [x, y] = [values[values.length - 2]!, values[values.length - 1]!];
    if (command === 'M') [startX, startY] = [x, y];
  }
  return out;
}

/** Underline and strike as a rectangle in line space: offset below the baseline and weight. */
export function decorations(run: GlyphRun): { y: number; weight: number; paint: GlyphRun['fill'] }[] {
  const unit = run.size / run.font.unitsPerEm;
  const { underline, strike } = run.look;
  const out: { y: number; weight: number; paint: GlyphRun['fill'] }[] = [];
  if (underline)
    out.push({
      y: underline.offset ?? -run.font.underline.offset * unit,
      weight: underline.weight ?? run.font.underline.thickness * unit,
      paint: underline.paint ?? run.fill,
    });
  if (strike)
    out.push({
      y: strike.offset ?? -0.5 * run.font.xHeight * unit,
      weight: strike.weight ?? run.font.underline.thickness * unit,
      paint: strike.paint ?? run.fill,
    });
  return out;
}

/**
 * A line's glyphs in frame space: references to outlines that are defined once, or, without such, one path for each run of one
 * look. A browser treats every reference as a picture of its own; a page on the screen has thousands of them.
 */
export function lineGlyphs(line: SetLine, outlines: GlyphOutlines | null, swatches: Record<string, Swatch>): string {
  let out = '';
  for (const run of line.runs) {
    const scale = run.size / run.font.unitsPerEm;
    const along = scale * run.horizontalScale;
    const [x, y] = [line.x + run.x, line.baseline + run.shift];
    let uses = '';
    let path = '';
    for (const g of run.glyphs) {
      const [gx, gy] = [num((g.x + g.dx) / along, 1), num(-g.dy / scale, 1)];
      if (outlines) {
        const id = outlines.use(run.font, g.gid);
        if (id) uses += `<use href="#${id}" x="${gx}" y="${gy}"/>`;
      } else {
        const d = relativeOutline(run.font, g.gid);
        if (d) path += `M${gx} ${gy}${d}`;
      }
    }
    const colour = solidHex(run.fill, swatches);
    const { stroke } = run.look;
    const outlined =
      stroke && stroke.weight > 0 && stroke.paint.type !== 'none' && stroke.paint.type !== 'gradient'
        ? {
            stroke: solidHex(stroke.paint, swatches),
            'stroke-width': num(stroke.weight / scale, 2),
            'stroke-linejoin': stroke.join === 'miter' ? undefined : stroke.join,
          }
        : {};
    // Outlines have y up: a positive dy (down) becomes a negative y of the flipped space.
    const look = { fill: colour, ...outlined, transform: `matrix(${num(along, 6)} 0 0 ${num(-scale, 6)} ${num(x, 4)} ${num(y, 4)})` };
    if (uses) out += `<g${attrs(look)}>${uses}</g>`;
    if (path) out += `<path class="glyphs"${attrs(look)} d="${path}"/>`;
    for (const d of decorations(run))
      out += `<rect${attrs({ x, y: y + d.y - d.weight / 2, width: run.width, height: d.weight, fill: solidHex(d.paint, swatches) })}/>`;
  }
  return out;
}

/** Rules, shadings, borders and cells of a text, in the space of its frame; they lie under its letters. */
export function frameBoxes(frame: Pick<ComposedFrame, 'boxes' | 'item'>, swatches: Record<string, Swatch>): string {
  return frame.boxes
    .map((b, i) => pathElement(`${frame.item}-box${i}`, rectPath(b.box), b.fill ?? NO_PAINT, boxStroke(b), swatches))
    .join('');
}
const NO_PAINT: Paint = { type: 'none' };
