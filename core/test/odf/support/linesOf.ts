import type { Composition } from '../../../src/compose/index.ts';

/** Where every line of every frame stands, to a hundredth of a point: what a change that alters no look must leave. */
export function linesOf(composition: Composition): Record<string, string[]> {
  const at = (n: number): string => n.toFixed(2);
  return Object.fromEntries(
    [...composition.frames].map(([id, f]) => [id, f.lines.map((l) => [l.x, l.baseline, l.width, l.ascent, l.descent].map(at).join(' '))]),
  );
}
