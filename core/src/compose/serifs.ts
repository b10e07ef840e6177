import type { FontFace } from './fontFace.ts';

/** Beside the em: how nearly upright a stem is, how low its foot reaches, how far a serif stands out, how long a stem is beside its capital. */
const UPRIGHT = 0.012;
const FOOT = 0.02;
const STANDS_OUT = 0.02;
const LONG = 0.25;

/**
 * Whether the letters of a face have serifs, by the look of its H: whether its foot stands out to the left of its first stem. What fonts
 * say of themselves (panose, family class) is empty in many. Null where there is no H, or none with an upright stem.
 */
export function hasSerifs(face: FontFace): boolean | null {
  const gid = face.glyphFor(0x48);
  if (gid === 0) return null;
  const points = endPoints(face.outline(gid)).map(([x, y]) => [x / face.unitsPerEm, y / face.unitsPerEm] as const);
  const height = Math.max(...points.map(([, y]) => y));
  const stems = uprights(points).flatMap((run) => (run.to - run.from > height * LONG ? [run.x] : []));
  const feet = points.filter(([, y]) => y < FOOT).map(([x]) => x);
  if (!stems.length || !feet.length) return null;
  return Math.min(...stems) - Math.min(...feet) > STANDS_OUT;
}

/** Stretches of an outline that stand upright, in however many pieces they are drawn: where they are, and from where to where they go. */
function uprights(points: readonly (readonly [number, number])[]): { x: number; from: number; to: number }[] {
  const runs: { x: number; from: number; to: number }[] = [];
  let run: { start: number; x: number; from: number; to: number } | null = null;
  for (const [x, y] of points) {
    if (run && Math.abs(x - run.start) < UPRIGHT)
      Object.assign(run, { x: Math.min(run.x, x), from: Math.min(run.from, y), to: Math.max(run.to, y) });
    else {
      run = { start: x, x, from: y, to: y };
      runs.push(run);
    }
  }
  return runs;
}

/** Where the pieces of an outline end, in its order; its points of control are left out. */
function endPoints(path: string): [number, number][] {
  return [...path.matchAll(/[MLQC]([^MLQCZ]*)/g)].flatMap(([, numbers]) => {
    const all = numbers!.match(/-?\d+(?:\.\d+)?/g)?.map(Number) ?? [];
    return all.length >= 2 ? [[all[all.length - 2]!, all[all.length - 1]!] as [number, number]] : [];
  });
}
