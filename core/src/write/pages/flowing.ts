import type { GlyphRun, SetLine } from '../../compose/marks.ts';
import type { ParagraphProperties } from '../../folio/styles.ts';
import { baselineInBox, px } from '../../paint/html/metrics.ts';
import { num } from '../../paint/svg/markup.ts';
import type { ParagraphUnit } from '../../structure/reading.ts';

/** What happens to lines for which a column has no room. */
export type Overflow = 'cut' | 'shown' | 'scroll';

/** A paragraph, or a part of one, whose lines browsers can break anew: where it stands in its frame, in px. */
export interface FlowingPart {
  column: number;
  left: number;
  top: number;
  width: number;
  indent: number;
  /** From baseline to baseline, and how many of them. */
  leading: number;
  lines: number;
}

/** Whether lines hold nothing but letters that follow one another: tabs, labels, leaders and stretched letters stay where they are. */
export const flowsFreely = (lines: readonly SetLine[]): boolean =>
  lines.every(
    (l) =>
      !l.anchored?.length &&
      !l.cut &&
      l.runs.length > 0 &&
      l.runs.every(
        (r, i) =>
          (i === 0 || r.joint === 'flow') && r.joint !== 'tab' && !r.decoration && r.generated !== 'label' && r.horizontalScale === 1,
      ),
  );

const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.1;

/** How a unit flows; null where its lines must stay in their places: in cells, around something, over columns. */
export function flowOf({ lines, cell }: ParagraphUnit): FlowingPart | null {
  const [first, second] = lines;
  if (!first || cell || !flowsFreely(lines)) return null;
  const rest = second ?? first;
  const right = (l: SetLine): number => l.x + l.measure;
  const isEven = lines.every((l, i) => {
    const before = lines[i - 1];
    const leading = rest.baseline - first.baseline;
    return (
      l.column === first.column &&
      near(right(l), right(rest)) &&
      (i === 0 || (near(l.x, rest.x) && near(l.baseline - before!.baseline, leading)))
    );
  });
  if (!isEven) return null;
  const main = first.runs[0]!;
  const leading = px(second ? second.baseline - first.baseline : first.ascent + first.descent);
  return {
    column: first.column,
    left: px(rest.x),
    top: px(first.baseline) - baselineInBox(main.font, px(main.size), leading),
    width: px(rest.measure),
    indent: px(first.x - rest.x),
    leading,
    lines: lines.length,
  };
}

/** A paragraph's own style in its column, `gap` px below what is above it. */
export function flowStyle(
  part: FlowingPart,
  { align, direction, hyphenation }: ParagraphProperties,
  ends: boolean,
  column: FlowingColumn,
  gap: number,
): string {
  const side = direction === 'rtl' ? 'right' : 'left';
  const sides: Record<ParagraphProperties['align'], string> = {
    left: 'left',
    right: 'right',
    centre: 'center',
    justify: 'justify',
    justifyAll: 'justify',
  };
  const last = align === 'justifyAll' || (align === 'justify' && !ends) ? 'justify' : align === 'justify' ? side : undefined;
  return [
    `margin:${num(gap, 3)}px 0 0 ${num(part.left - column.left, 3)}px`,
    `width:${num(part.width, 3)}px`,
    `line-height:${num(part.leading, 3)}px`,
    `text-align:${sides[align]}`,
    ...(last ? [`text-align-last:${last}`] : []),
    ...(Math.abs(part.indent) > 0.01 ? [`text-indent:${num(part.indent, 3)}px`] : []),
    `hyphens:${hyphenation ? 'auto' : 'manual'}`,
  ].join(';');
}

/** The room in which paragraphs follow one another. */
export interface FlowingColumn {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The room of parts that follow one another down to `bottom`, in px. */
export function columnOf(parts: readonly FlowingPart[], bottom: number): FlowingColumn {
  const left = Math.min(...parts.map((p) => p.left));
  const width = Math.max(...parts.map((p) => p.left + p.width)) - left;
  const top = parts[0]!.top;
  // Its own lines always have room; browsers may break others.
  const need = parts.at(-1)!.top + parts.at(-1)!.lines * parts.at(-1)!.leading - top;
  return { left, top, width, height: Math.max(need, bottom - top) };
}

const OVERFLOW: Record<Overflow, string> = { cut: 'overflow:clip', shown: 'overflow:visible', scroll: 'overflow:hidden auto' };
export const columnStyle = ({ left, top, width, height }: FlowingColumn, overflow: Overflow): string =>
  `left:${num(left, 3)}px;top:${num(top, 3)}px;width:${num(width, 3)}px;height:${num(height, 3)}px;${OVERFLOW[overflow]}`;

/** A run as its letters come without justification. */
export const unjustified = (run: GlyphRun): GlyphRun => ({ ...run, wordSpace: 0, letterSpace: (run.look.tracking / 1000) * run.size });
