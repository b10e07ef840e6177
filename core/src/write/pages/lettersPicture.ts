import type { ComposedFrame } from '../../compose/marks.ts';
import type { TextFrame } from '../../folio/items.ts';
import { PT_PER_INCH } from '../../folio/units.ts';
import { px } from '../../paint/html/metrics.ts';
import { drawnLetters } from '../../paint/html/paintItem.ts';
import type { LookSheet } from '../../paint/html/styleSheet.ts';
import { attrs, num } from '../../paint/svg/markup.ts';
import type { WriteJob } from '../writer.ts';

/** Room around a frame for letters that stand out of it, in points. */
const AROUND = 12;

/** A frame's letters as a picture in the resolution of the recipe's pictures; null where it has none. */
export async function lettersPicture(
  { folio, settings, pictures }: WriteJob<{ resolution: number }>,
  item: TextFrame,
  frame: ComposedFrame,
  looks: LookSheet,
): Promise<{ bytes: Uint8Array; markup: (path: string) => string } | null> {
  const svg = drawnLetters(frame, item, folio.head, looks);
  const drawing = /^<svg[^>]*>([\s\S]*)<\/svg>$/.exec(svg)?.[1];
  if (drawing === undefined) return null;
  const lowest = Math.max(item.size.height, ...frame.lines.map((l) => l.baseline + l.descent));
  const [width, height] = [item.size.width + 2 * AROUND, lowest + 2 * AROUND];
  const scale = settings.resolution / PT_PER_INCH;
  const size = { width: num(width * scale, 2), height: num(height * scale, 2) };
  const whole = `<svg${attrs({ xmlns: 'http://www.w3.org/2000/svg', 'xmlns:xlink': 'http://www.w3.org/1999/xlink', ...size, viewBox: `${-AROUND} ${-AROUND} ${num(width, 4)} ${num(height, 4)}` })}>${drawing}</svg>`;
  return {
    bytes: await pictures.drawSvg(whole, 'picture'),
    // A ground and no picture of its own: what is read is the text.
    markup: (path) =>
      `<div${attrs({ class: 'o', style: `left:${num(px(-AROUND), 4)}px;top:${num(px(-AROUND), 4)}px;width:${num(px(width), 4)}px;height:${num(px(height), 4)}px;background:url(${path}) 0 0/100% 100%`, 'aria-hidden': 'true' })}></div>`,
  };
}
