import { lookParts } from './expand.ts';
import { positioned } from './itemise.ts';
import type { ShapingItem } from './itemise.ts';
import type { Glyph, GlyphRun } from './marks.ts';
import { scaleOf } from './shapeParagraph.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** A tab is filled no further than this: a leader of hair-thin dots would fill memory too. */
const MOST_REPEATS = 500;

/** A leader fills a tab with whole repeats, flush with its end, so that those of neighbouring lines stand in step. */
export function leaderRuns(
  shaped: ShapedParagraph,
  item: ShapingItem,
  tab: { from: number; x: number; width: number; leader: string },
): GlyphRun[] {
  const { from, x, width, leader } = tab;
  const look = lookParts(shaped.looks, from, from + 1)[0]!;
  const unit = item.font.shape({ ...item, text: leader, start: 0, end: leader.length });
  const scale = scaleOf(item);
  const unitWidth = unit.reduce((n, g) => n + g.advance * scale, 0);
  const repeats = unitWidth > 0 ? Math.min(MOST_REPEATS, Math.floor(width / unitWidth + 1e-6)) : 0;
  if (!repeats) return [];
  const glyphs: Glyph[] = [];
  let at = 0;
  for (let r = 0; r < repeats; r++)
    for (const g of unit) {
      glyphs.push({
        gid: g.gid,
        x: at,
        advance: g.advance * scale,
        dx: g.dx * scale,
        dy: -g.dy * scale,
        offset: shaped.offsets[from]!,
        text: leader[g.cluster] ?? '',
      });
      at += g.advance * scale;
    }
  return [
    {
      font: item.font,
      size: item.size,
      look: look.character,
      fill: look.character.fill,
      text: leader.repeat(repeats),
      start: shaped.offsets[from]!,
      end: shaped.offsets[from]!,
      x: x + width - at,
      shift: positioned(look.character).shift,
      width: at,
      wordSpace: 0,
      letterSpace: 0,
      horizontalScale: item.horizontalScale,
      features: item.features,
      language: item.language,
      direction: item.direction,
      joint: 'apart',
      decoration: true,
      glyphs,
    },
  ];
}
