import type { TextPart } from '../../folio/edition.ts';

/** A text as a tree where its pairs of codes stand inside one another; ends that have no place in it stand by themselves. */
export type Nested =
  | { type: 'text'; text: string }
  | { type: 'wrap' }
  | { type: 'code'; code: number }
  | { type: 'pair'; code: number; inside: Nested[] }
  | { type: 'start' | 'end'; code: number };

/** Pairs that close in the order in which they opened become elements; those that cross others, or have one end only, become two signs. */
export function nested(parts: readonly TextPart[]): Nested[] {
  const crossing = crossingCodes(parts);
  const root: Nested[] = [];
  const open: { code: number; inside: Nested[] }[] = [];
  const here = (): Nested[] => open[open.length - 1]?.inside ?? root;
  for (const part of parts) {
    if (part.type === 'open' && !crossing.has(part.code)) open.push({ code: part.code, inside: [] });
    else if (part.type === 'close' && !crossing.has(part.code)) {
      const { code, inside } = open.pop()!;
      here().push({ type: 'pair', code, inside });
    } else if (part.type === 'open') here().push({ type: 'start', code: part.code });
    else if (part.type === 'close') here().push({ type: 'end', code: part.code });
    else here().push(part);
  }
  return root;
}

function crossingCodes(parts: readonly TextPart[]): Set<number> {
  const crossing = new Set<number>();
  const open: number[] = [];
  const seen = new Set<number>();
  for (const part of parts) {
    if (part.type === 'open') {
      // Each number can be an element once.
      if (seen.has(part.code)) crossing.add(part.code);
      seen.add(part.code);
      open.push(part.code);
    }
    if (part.type !== 'close') continue;
    const at = open.lastIndexOf(part.code);
    if (at < 0) crossing.add(part.code);
    else if (at !== open.length - 1) crossing.add(part.code);
    if (at >= 0) open.splice(at, 1);
  }
  for (const code of open) crossing.add(code);
  return crossing;
}
