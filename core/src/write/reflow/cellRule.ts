import type { Stroke } from '../../folio/appearance.ts';
import { contrast, flatRgb, hex, WHITE } from '../../folio/colour.ts';
import type { Swatch } from '../../folio/colour.ts';
import type { CellStyle } from '../../folio/styles.ts';
import { lineOfSide, roomInCell } from '../../folio/tableCells.ts';
import { num } from '../../paint/svg/markup.ts';
import { isInk } from './readersInk.ts';

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
/** Dashes that are no longer than this many times the line’s weight are dots (common practice). */
const DOT = 1.5;

/**
 * A cell as running text shows it: its ground, its lines, the room in it; lengths go with the reader’s size of text. Who sets a
 * ground sets the colour on it (WCAG 2.2, failure F24): `text`, or what is seen best.
 */
export function cellRule(
  swatches: Record<string, Swatch>,
  look: Partial<CellStyle>,
  text: string | undefined,
  base: number,
): Record<string, string> {
  const ground = look.fill ? flatRgb(look.fill, swatches) : null;
  const em = (points: number): string => (points ? `${num(points / base, 3)}em` : '0');
  // Lines in ink are the reader’s own: they are seen by night as well.
  const line = (stroke: Stroke | null): string => {
    const colour = stroke && flatRgb(stroke.paint, swatches);
    if (!stroke || !colour) return 'none';
    const style = !stroke.dashes.some((d) => d > 0) ? 'solid' : stroke.dashes[0]! <= DOT * stroke.weight ? 'dotted' : 'dashed';
    return `${em(stroke.weight)} ${style} ${!ground && isInk(colour) ? 'currentcolor' : hex(colour)}`;
  };
  const lines = SIDES.map((side) => line(lineOfSide(look, side)));
  const around = lines.every((l) => l === lines[0]);
  return {
    ...(ground && {
      'background-color': hex(ground),
      color: text ?? (contrast(ground, WHITE) > contrast(ground, { r: 0, g: 0, b: 0 }) ? '#ffffff' : '#000000'),
    }),
    ...(around ? { border: lines[0]! } : Object.fromEntries(SIDES.map((side, i) => [`border-${side}`, lines[i]!]))),
    padding: roomInCell(look).map(em).join(' '),
  };
}
