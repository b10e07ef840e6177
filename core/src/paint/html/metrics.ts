import { PX_PER_PT } from '../../folio/units.ts';
import type { FontFace } from '../../compose/fontFace.ts';

export const px = (points: number): number => points * PX_PER_PT;

/**
 * How far below a line box's top a browser puts the baseline: half the leading left over, then the
 * ascent (CSS 2.2, 10.8.1). Browsers round ascent and descent to whole px first.
 */
export function baselineInBox(font: FontFace, sizePx: number, lineHeightPx: number): number {
  const ascent = Math.round((font.ascent / font.unitsPerEm) * sizePx);
  const descent = Math.round((font.descent / font.unitsPerEm) * sizePx);
  return (lineHeightPx - (ascent + descent)) / 2 + ascent;
}
