import { rectPath } from '../../folio/geometry.ts';
import { drawGeometry } from './geometry/enhancedGeometry.ts';
import type { DrawnGeometry, EnhancedGeometry } from './geometry/enhancedGeometry.ts';
import { readViewBox } from './geometry/pathData.ts';
import type { NotTakenList } from '../../intake/notTaken.ts';
import { childOf, childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type Attributes = Record<string, string>;

/** A custom shape (10.6) drawn in a size; what of it cannot be drawn is listed. */
export function customGeometry(
  element: XmlElement,
  width: number,
  height: number,
  graphic: Attributes,
  notTaken: NotTakenList,
): DrawnGeometry {
  const geometry = childOf(element, 'draw:enhanced-geometry');
  const a = geometry?.attributes ?? {};
  const plain: DrawnGeometry = {
    parts: [{ path: rectPath({ x: 0, y: 0, width, height }), filled: true, stroked: true }],
    text: null,
    problems: [],
  };
  if (!geometry) return plain;
  const path = a['draw:enhanced-path'];
  if (!path?.trim()) {
    if (a['draw:type'] !== 'rectangle' && a['draw:type'] !== undefined)
      notTaken.add('changed', `Shape “${a['draw:type']}”`, 'the file does not say how it is drawn; it is shown as a rectangle');
    return plain;
  }
  if (a['draw:extrusion'] === 'true') notTaken.add('changed', 'Shape with depth', 'it is shown flat');
  const stretch = { x: Number(a['draw:path-stretchpoint-x'] ?? 0) || 0, y: Number(a['draw:path-stretchpoint-y'] ?? 0) || 0 };
  const drawn = drawnOnce(
    {
      viewBox: readViewBox(a['svg:viewBox']) ?? { x: 0, y: 0, width: 0, height: 0 },
      path,
      equations: new Map(
        childrenOf(geometry, 'draw:equation').map((e) => [e.attributes['draw:name'] ?? '', e.attributes['draw:formula'] ?? '']),
      ),
      modifiers: (a['draw:modifiers'] ?? '')
        .trim()
        .split(/[\s,]+/)
        .map((m) => (Number.isFinite(Number(m)) ? Number(m) : 0)),
      textAreas: a['draw:text-areas'],
      mirror: { horizontal: a['draw:mirror-horizontal'] === 'true', vertical: a['draw:mirror-vertical'] === 'true' },
      stretch,
      hasStroke: graphic['draw:stroke'] !== 'none',
      hasFill: graphic['draw:fill'] !== 'none',
    },
    width,
    height,
  );
  for (const problem of drawn.problems) notTaken.add('changed', 'Shape with a formula that cannot be worked out', problem);
  return drawn;
}

/** Shapes of one kind and size stand by dozens in charts and tables: what was worked out last is kept. */
const MOST_KEPT = 400;
const kept = new Map<string, DrawnGeometry>();

function drawnOnce(geometry: EnhancedGeometry, width: number, height: number): DrawnGeometry {
  const key = JSON.stringify([{ ...geometry, equations: [...geometry.equations] }, width, height]);
  let drawn = kept.get(key);
  if (!drawn) {
    if (kept.size >= MOST_KEPT) kept.clear();
    kept.set(key, (drawn = drawGeometry(geometry, width, height)));
  }
  return drawn;
}

/** Whether a shape is no more than its box. */
export function isPlainBox({ parts }: DrawnGeometry, width: number, height: number): boolean {
  if (parts.length !== 1) return false;
  const corners = rectPath({ x: 0, y: 0, width, height }).slice(0, 4);
  const steps = parts[0]!.path.filter((s) => s[0] !== 'Z');
  return corners.every((c, i) => steps[i] !== undefined && c.every((n, k) => n === steps[i]![k]));
}
