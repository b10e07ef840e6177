import type { ObservedShape } from './observed.ts';

/** A fill directly followed by a stroke of the same outline is one thing seen twice. */
export function mergeShapes(shapes: readonly ObservedShape[]): ObservedShape[] {
  const out: ObservedShape[] = [];
  for (const shape of shapes) {
    const last = out[out.length - 1];
    const same =
      last &&
      last.stroke === null &&
      shape.fill === null &&
      (['x', 'y', 'width', 'height'] as const).every((k) => Math.abs(last.box[k] - shape.box[k]) < 0.02);
    if (same) out[out.length - 1] = { ...last, stroke: shape.stroke };
    else out.push(shape);
  }
  return out;
}
