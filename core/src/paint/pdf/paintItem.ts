import type { ComposedFrame, GlyphRun, SetLine } from '../../compose/marks.ts';
import type { BlendMode } from '../../folio/appearance.ts';
import { boxStroke, outlineOf } from '../boxPath.ts';
import { rectPath } from '../../folio/geometry.ts';
import type { Rect } from '../../folio/geometry.ts';
import { decorations } from '../svg/glyphs.ts';
import type { Item } from '../../folio/items.ts';
import { markedLine } from '../lineEnds.ts';
import type { PdfCanvas } from './pdfCanvas.ts';

type Leaf = Exclude<Item, { kind: 'group' }>;

/** A picture that lies in a box of the spread. */
export interface PlacedImage {
  key: string;
  bytes: Uint8Array;
  box: Rect;
}

export function paintPlacedImage(canvas: PdfCanvas, { key, bytes, box }: PlacedImage): void {
  canvas.save();
  canvas.transform([box.width, 0, 0, box.height, box.x, box.y]);
  canvas.image(key, bytes);
  canvas.restore();
}

/** Runs `draw` in an item's own space, with a transparency and a blend mode, shown only as far as `cover` has it. */
export function inItemSpace(
  canvas: PdfCanvas,
  item: Leaf,
  { opacity, blend }: { opacity: number; blend: BlendMode },
  draw: () => void,
  cover: PlacedImage | null = null,
): void {
  canvas.save();
  if (cover) canvas.softMask(cover.key, cover.bytes, cover.box);
  canvas.transform(item.transform);
  if (opacity !== 1) canvas.opacity(opacity);
  if (blend !== 'normal') canvas.blend(blend);
  draw();
  canvas.restore();
}

export function paintFill(canvas: PdfCanvas, item: Leaf): void {
  canvas.fill(outlineOf(item), item.fill, item.kind === 'shape' ? item.fillRule : 'nonzero');
}

export function paintStroke(canvas: PdfCanvas, item: Leaf): void {
  if (!item.stroke) return;
  const { line, ends } = markedLine(outlineOf(item), item.stroke);
  canvas.stroke(line, item.stroke);
  if (ends.length) canvas.fill(ends, item.stroke.paint, 'nonzero');
}

/** A picture in its box, cropped. */
export function paintPicture(canvas: PdfCanvas, item: Leaf, key: string, bytes: Uint8Array): void {
  canvas.save();
  canvas.clip(item.kind === 'picture' && item.clip ? item.clip : outlineOf(item));
  canvas.transform(
    item.kind === 'picture' ? item.placement : 'size' in item ? [item.size.width, 0, 0, item.size.height, 0, 0] : [1, 0, 0, 1, 0, 0],
  );
  canvas.image(key, bytes);
  canvas.restore();
}

/** One run with its underline and strike. `spaceAfter` adds the space that stood at the line's end. */
export function paintRun(canvas: PdfCanvas, line: SetLine, run: GlyphRun, spaceAfter: boolean): void {
  const [x, y] = [line.x + run.x, line.baseline];
  if (run.font.mayEmbed) canvas.glyphs(run, x, y, spaceAfter);
  else canvas.outlines(run, x, y);
  for (const d of decorations(run)) canvas.bar({ x, y: y + run.shift + d.y - d.weight / 2, width: run.width, height: d.weight }, d.paint);
}

export function paintLines(canvas: PdfCanvas, frame: Pick<ComposedFrame, 'lines'>): void {
  for (const line of frame.lines) line.runs.forEach((run, i) => paintRun(canvas, line, run, i === line.runs.length - 1 && line.spaceAtEnd));
}

/** Rules, shadings, borders and cells of a text; they lie under its letters. */
export function paintBoxes(canvas: PdfCanvas, frame: Pick<ComposedFrame, 'boxes'>): void {
  for (const box of frame.boxes) {
    const path = rectPath(box.box);
    if (box.fill) canvas.fill(path, box.fill, 'nonzero');
    const stroke = boxStroke(box);
    if (stroke) canvas.stroke(path, stroke);
  }
}
