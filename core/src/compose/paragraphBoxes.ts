import type { ParagraphProperties } from '../folio/styles.ts';
import type { Column } from './columnFill.ts';
import type { FrameBox, SetLine } from './marks.ts';

/** Rules, shading and borders of the paragraphs whose lines stand in a column. A paragraph that goes on has none at the cut. */
export function paragraphBoxes(
  lines: readonly SetLine[],
  column: Column,
  propertiesOf: (id: string) => ParagraphProperties | undefined,
): FrameBox[] {
  const out: FrameBox[] = [];
  for (let i = 0; i < lines.length;) {
    const first = lines[i]!;
    let j = i;
    while (j + 1 < lines.length && lines[j + 1]!.paragraph === first.paragraph) j++;
    const p = propertiesOf(first.paragraph);
    if (p) out.push(...boxesOf(lines.slice(i, j + 1), column, p));
    i = j + 1;
  }
  return out;
}

function boxesOf(lines: readonly SetLine[], column: Column, p: ParagraphProperties): FrameBox[] {
  if (!p.ruleAbove && !p.ruleBelow && !p.shading && !p.border) return [];
  const [first, last] = [lines[0]!, lines[lines.length - 1]!];
  const subject = first.paragraph;
  const out: FrameBox[] = [];
  const [left, right] = [column.x + p.startIndent, column.x + column.width - p.endIndent];
  const block = (offset: number): FrameBox['box'] => {
    const top = first.baseline - first.ascent - offset;
    return { x: left - offset, y: top, width: Math.max(0, right - left + 2 * offset), height: last.baseline + last.descent + offset - top };
  };
  if (p.shading) out.push({ kind: 'shading', box: block(p.shading.offset), fill: p.shading.paint, subject });
  if (p.border)
    out.push({ kind: 'border', box: block(p.border.offset), stroke: { paint: p.border.paint, weight: p.border.weight }, subject });
  const rule = (r: NonNullable<ParagraphProperties['ruleAbove']>, baseline: number, line: SetLine): FrameBox => {
    const [from, to] = r.width === 'text' ? [line.x, line.x + line.width] : [left, right];
    return {
      kind: 'rule',
      box: { x: from, y: baseline - r.weight / 2, width: Math.max(0, to - from), height: r.weight },
      fill: r.paint,
      subject,
    };
  };
  // Offsets are told from the baselines: up from the first, down from the last.
  if (p.ruleAbove && first.first) out.push(rule(p.ruleAbove, first.baseline - p.ruleAbove.offset, first));
  if (p.ruleBelow && last.last) out.push(rule(p.ruleBelow, last.baseline + p.ruleBelow.offset, last));
  return out;
}
