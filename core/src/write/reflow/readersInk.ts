import { contrast, solidColour, toRgb, WHITE } from '../../folio/colour.ts';
import type { Rgb, SolidPaint } from '../../folio/colour.ts';
import type { Folio } from '../../folio/folio.ts';

/** Text below this contrast to white paper is not seen on the ground that readers set (WCAG 2.2, 1.4.3: 3 to 1 for large text). */
const LEAST_CONTRAST = 3;
/** From this contrast on a colour is as good as black: readers who choose white on black must not get it. */
const NEARLY_BLACK = 14;
/** A grey is taken for black earlier than a colour is: many texts are set in a soft black. */
const SOFT_BLACK = 10;
const GREY = 0.08;

/** Whether a colour is that of ink on paper: in running text it is the reader’s own. */
export function isInk(colour: Rgb): boolean {
  const seen = contrast(colour, WHITE);
  const { r, g, b } = colour;
  return seen > NEARLY_BLACK || (seen > SOFT_BLACK && Math.max(r, g, b) - Math.min(r, g, b) < GREY);
}

/** How text of a colour is seen in running text: in that colour, as the reader's own because it is nearly black, or because it would not be seen. */
export function seenAs(paint: SolidPaint, folio: Folio): 'itself' | 'black' | 'unseen' {
  const { colour, tint } = solidColour(paint, folio.head.swatches);
  const rgb = toRgb(colour, tint);
  return contrast(rgb, WHITE) < LEAST_CONTRAST ? 'unseen' : isInk(rgb) ? 'black' : 'itself';
}
