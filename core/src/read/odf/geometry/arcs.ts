import type { PathStep } from '../../../folio/geometry.ts';

/**
 * A part of an ellipse as cubic curves, each no more than a quarter; angles in degrees, growing clockwise (y points down).
 * Begins at the point of `from`, which is not part of it. The handles' length is the usual 4/3·tan(θ/4).
 */
export function arcSteps(cx: number, cy: number, rx: number, ry: number, from: number, to: number): PathStep[] {
  const sweep = ((to - from) * Math.PI) / 180;
  const parts = Math.max(1, Math.ceil(Math.abs(sweep) / (Math.PI / 2) - 1e-9));
  const step = sweep / parts;
  const k = (4 / 3) * Math.tan(step / 4);
  const out: PathStep[] = [];
  let angle = (from * Math.PI) / 180;
  for (let i = 0; i < parts; i++) {
    const next = angle + step;
    const [c0, s0, c1, s1] = [Math.cos(angle), Math.sin(angle), Math.cos(next), Math.sin(next)];
    out.push([
      'C',
      cx + rx * (c0 - k * s0),
      cy + ry * (s0 + k * c0),
      cx + rx * (c1 + k * s1),
      cy + ry * (s1 - k * c1),
      cx + rx * c1,
      cy + ry * s1,
    ]);
    angle = next;
  }
  return out;
}

/** The point of an ellipse at an angle in degrees. */
export function pointAt(cx: number, cy: number, rx: number, ry: number, degrees: number): [number, number] {
  const r = (degrees * Math.PI) / 180;
  return [cx + rx * Math.cos(r), cy + ry * Math.sin(r)];
}

/** The ellipse's own angle, in degrees, of the ray from its centre through a point. */
export const angleTo = (cx: number, cy: number, rx: number, ry: number, x: number, y: number): number =>
  (Math.atan2((y - cy) / (ry || 1), (x - cx) / (rx || 1)) * 180) / Math.PI;
