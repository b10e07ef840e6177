import type { Veil } from './program.ts';

/** A flake's name: its column and its row. */
export const flakeKey = (column: number, row: number): string => `${column},${row}`;

/** The flakes that a stroke from one point to another passes, both in the veil's own space: fast strokes skip none. */
export function flakesAlong(veil: Pick<Veil, 'pitch'>, from: { x: number; y: number }, to: { x: number; y: number }): string[] {
  const steps = Math.max(1, Math.ceil((2 * Math.hypot(to.x - from.x, to.y - from.y)) / veil.pitch));
  const out = new Set<string>();
  for (let i = 0; i <= steps; i++) {
    const t = i / steps;
    const [x, y] = [from.x + (to.x - from.x) * t, from.y + (to.y - from.y) * t];
    out.add(flakeKey(Math.floor(x / veil.pitch), Math.floor(y / veil.pitch)));
  }
  return [...out];
}
