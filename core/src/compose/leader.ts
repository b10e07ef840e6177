import { lookParts } from './expand.ts';
import { positioned } from './itemise.ts';
import type { ShapingItem } from './itemise.ts';
import { GlyphWriter } from './glyphRow.ts';
import type { GlyphRun } from './marks.ts';
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
  const unit = item.font.shapeBrief(leader, item);
  const scale = scaleOf(item);
  const unitWidth = unit.width * scale;
  const repeats = unitWidth > 0 ? Math.min(MOST_REPEATS, Math.floor(width / unitWidth + 1e-6)) : 0;
  if (!repeats) return [];
  const glyphs = new GlyphWriter();
  for (let r = 0; r < repeats; r++)
    for (let i = 0; i < unit.count; i++)
      glyphs.add(unit.gid(i), unit.advance(i) * scale, unit.dx(i) * scale, -unit.dy(i) * scale, r * leader.length + unit.cluster(i), 1);
  const filled = glyphs.x;
  const text = leader.repeat(repeats);
  const offset = shaped.offsets[from]!;
  return [
    {
      font: item.font,
      size: item.size,
      look: look.character,
      fill: look.character.fill,
      text,
      start: offset,
      end: offset,
      x: x + width - filled,
      shift: positioned(look.character).shift,
      width: filled,
      wordSpace: 0,
      letterSpace: 0,
      horizontalScale: item.horizontalScale,
      features: item.features,
      language: item.language,
      direction: item.direction,
      joint: 'apart',
      decoration: true,
      generated: undefined,
      link: undefined,
      characterStyle: undefined,
      stays: undefined,
      // None of it is text of the paragraph: all of it stands where the tab does.
      glyphs: glyphs.take(text, new Uint32Array(text.length).fill(offset)),
    },
  ];
}
