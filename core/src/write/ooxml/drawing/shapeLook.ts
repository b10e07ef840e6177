import type { Swatch } from '../../../folio/colour.ts';
import { boundsOfPath, multiply, transformPath, translation } from '../../../folio/geometry.ts';
import type { Path } from '../../../folio/geometry.ts';
import type { Page } from '../../../folio/spread.ts';
import { outlineOf } from '../../../paint/boxPath.ts';
import type { Xml } from '../../assets/xml.ts';
import type { PageItem } from '../../pages/paintedPage.ts';
import { effectsXml } from './effects.ts';
import { geometryXml, roundRectangle } from './geometry.ts';
import { lineXml } from './line.ts';
import { fillXml } from './paint.ts';
import { placementOf } from './placement.ts';
import type { Placement } from './placement.ts';

/** The outline of a shape and how it is painted. */
export interface ShapeLook {
  geometry: Xml;
  fill: Xml;
  line: Xml;
  effects: Xml | null;
}

/** The box or outline of an item in its place on a page; null where nothing of it is seen. */
export function shapeOf(
  { item, opacity }: PageItem,
  { box: page }: Pick<Page, 'box'>,
  swatches: Record<string, Swatch>,
): { at: Placement; look: ShapeLook } | null {
  const stroke = item.stroke && item.stroke.weight > 0 ? item.stroke : null;
  const said = item.kind === 'shape' && item.alt;
  if (item.fill.type === 'none' && !stroke && !said) return null;
  const path = outlineOf(item);
  const own = item.kind === 'shape' ? boundsOfPath(item.path) : { x: 0, y: 0, ...item.size };
  const toPage = multiply(translation(-page.x, -page.y), item.transform);
  const placed = placementOf(toPage, own);
  // What is slanted has its slant in its outline.
  const outline: Path = placed ? path : transformPath(path, toPage);
  const box = placed ? own : boundsOfPath(path, toPage);
  const ground = { swatches, opacity, box };
  const look: ShapeLook = {
    geometry:
      placed && item.kind !== 'shape' && item.corner?.kind === 'round' && item.corner.radius > 0
        ? roundRectangle(own, item.corner.radius)
        : geometryXml(outline, box),
    fill: fillXml(item.fill, ground),
    line: lineXml(stroke, ground),
    effects: effectsXml(item.effects, swatches),
  };
  return { at: placed ?? { ...box, rotation: 0, flipV: false }, look };
}
