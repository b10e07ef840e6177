import type { Composition, SetLine } from './marks.ts';

const linesCache = new WeakMap<Composition, Map<string, SetLine[]>>();
/** The set lines of each paragraph. */
export function linesOf(composition: Composition, paragraph: string): SetLine[] {
  let map = linesCache.get(composition);
  if (!map) {
    map = new Map();
    for (const frame of composition.frames.values())
      for (const line of frame.lines) {
        const lines = map.get(line.paragraph);
        if (lines) lines.push(line);
        else map.set(line.paragraph, [line]);
      }
    linesCache.set(composition, map);
  }
  return map.get(paragraph) ?? [];
}
