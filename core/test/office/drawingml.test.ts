import { describe, expect, test } from '@jest/globals';
import { ellipsePath, rectPath, rotation } from '../../src/index.ts';
import type { Gradient, Path } from '../../src/index.ts';
import { Stroke } from '../../src/folio/appearance.ts';
import { effectsXml } from '../../src/write/ooxml/drawing/effects.ts';
import { geometryXml, roundRectangle } from '../../src/write/ooxml/drawing/geometry.ts';
import { lineXml } from '../../src/write/ooxml/drawing/line.ts';
import { fillXml } from '../../src/write/ooxml/drawing/paint.ts';
import { placementOf, transformXml } from '../../src/write/ooxml/drawing/placement.ts';

const box = { x: 0, y: 0, width: 100, height: 50 };
const ground = { swatches: {}, opacity: 1, box };
const rgb = (r: number, g: number, b: number) => ({ type: 'colour' as const, colour: { space: 'rgb' as const, r, g, b } });
const [red, blue] = [rgb(1, 0, 0), rgb(0, 0, 1)];
const linear = (transform: Gradient['transform'], stops: Gradient['stops'] = []): string =>
  fillXml(
    {
      type: 'gradient',
      gradient: {
        kind: 'linear',
        transform,
        stops: stops.length
          ? stops
          : [
              { offset: 0, paint: red, opacity: 1 },
              { offset: 1, paint: blue, opacity: 1 },
            ],
      },
    },
    ground,
  );

describe('places of DrawingML (ISO/IEC 29500-1, 20.1.7.6), worked by hand', () => {
  test('a turn keeps size and middle; angles are sixty thousandths of a degree, from 0 to a full turn', () => {
    expect(placementOf(rotation(30, 50, 25), box)).toMatchObject({ width: 100, height: 50, flipV: false });
    const turned = placementOf(rotation(-90, 50, 25), box)!;
    expect([turned.x, turned.y].map((n) => Math.round(n * 1000) / 1000)).toEqual([0, 0]);
    expect(transformXml('a:xfrm', turned)).toBe('<a:xfrm rot="16200000"><a:off x="0" y="0"/><a:ext cx="1270000" cy="635000"/></a:xfrm>');
  });
  test('what is turned over is flipped; what is slanted cannot be said', () => {
    expect(placementOf([1, 0, 0, -1, 10, 100], box)).toEqual({ x: 10, y: 50, width: 100, height: 50, rotation: 0, flipV: true });
    expect(placementOf([-1, 0, 0, 1, 100, 0], box)).toMatchObject({ flipV: true, rotation: 180 });
    expect(placementOf([1, 0, 0.3, 1, 0, 0], box)).toBeNull();
    expect(placementOf([2, 0, 0, 3, 0, 0], box)).toMatchObject({ width: 200, height: 150 });
  });
});

describe('paint', () => {
  test('a gradient from edge to edge is one of the format as it is', () => {
    expect(linear([100, 0, 0, 50, 0, 0])).toBe(
      '<a:gradFill rotWithShape="1"><a:gsLst><a:gs pos="0"><a:srgbClr val="FF0000"/></a:gs><a:gs pos="100000"><a:srgbClr val="0000FF"/></a:gs></a:gsLst><a:lin ang="0" scaled="0"/></a:gradFill>',
    );
  });
  test('one that ends inside the box goes on in the colour of its end; one that begins outside is cut', () => {
    // From 25 to 75 of 100: the stops are at a quarter and three quarters of the way.
    expect([...linear([50, 0, 0, 50, 25, 0]).matchAll(/pos="(\d+)"><a:srgbClr val="(\w+)"/g)].map((m) => [m[1], m[2]])).toEqual([
      ['0', 'FF0000'],
      ['25000', 'FF0000'],
      ['75000', '0000FF'],
      ['100000', '0000FF'],
    ]);
    // From -100 to 100: the box begins half way, in purple.
    expect(linear([200, 0, 0, 50, -100, 0])).toContain('<a:gs pos="0"><a:srgbClr val="800080"/>');
  });
  test('downwards is 90 degrees (20.1.8.41), and transparency is alpha', () => {
    expect(linear([0, 50, -100, 0, 0, 0])).toContain('<a:lin ang="5400000" scaled="0"/>');
    expect(fillXml(red, { ...ground, opacity: 0.5 })).toBe(
      '<a:solidFill><a:srgbClr val="FF0000"><a:alpha val="50000"/></a:srgbClr></a:solidFill>',
    );
    expect(fillXml({ type: 'none' }, ground)).toBe('<a:noFill/>');
  });
  test('round ones begin in their middle and end at the farthest corner', () => {
    const round: Gradient = {
      kind: 'radial',
      transform: [50, 0, 0, 50, 0, 0],
      stops: [
        { offset: 0, paint: red, opacity: 1 },
        { offset: 1, paint: blue, opacity: 1 },
      ],
    };
    const xml = fillXml({ type: 'gradient', gradient: round }, ground);
    expect(xml).toContain('<a:path path="circle"><a:fillToRect l="0" t="0" r="100000" b="100000"/></a:path>');
    // The far corner is the root of 100² + 50² away, 111.8 points; the last stop stands at 50.
    expect(xml).toContain(`<a:gs pos="${Math.round((50 / Math.hypot(100, 50)) * 100_000)}">`);
  });
});

describe('outlines', () => {
  test('boxes and ellipses are shapes of the format, all else a path in EMU', () => {
    expect(geometryXml(rectPath(box), box)).toBe('<a:prstGeom prst="rect"><a:avLst/></a:prstGeom>');
    expect(geometryXml(ellipsePath(50, 25, 50, 25), box)).toBe('<a:prstGeom prst="ellipse"><a:avLst/></a:prstGeom>');
    const triangle: Path = [['M', 0, 50], ['L', 50, 0], ['L', 100, 50], ['Z']];
    expect(geometryXml(triangle, box)).toContain(
      '<a:path w="1270000" h="635000"><a:moveTo><a:pt x="0" y="635000"/></a:moveTo><a:lnTo><a:pt x="635000" y="0"/></a:lnTo>',
    );
    const bowTie: Path = [['M', 0, 0], ['L', 100, 50], ['L', 100, 0], ['L', 0, 50], ['Z']];
    expect(geometryXml(bowTie, box)).toContain('custGeom');
  });
  test('round corners are a share of the shorter side (20.1.10.56)', () => {
    expect(roundRectangle(box, 10)).toContain('<a:gd name="adj" fmla="val 20000"/>');
    expect(roundRectangle(box, 400)).toContain('fmla="val 50000"');
  });
});

test('lines have weights in EMU, and dashes by their weight in thousandths of a per cent', () => {
  const stroke = Stroke.parse({ paint: red, weight: 2, dashes: [6, 4], cap: 'round', join: 'round', endMarker: 'arrow' });
  expect(lineXml(stroke, ground)).toBe(
    '<a:ln w="25400" cap="rnd"><a:solidFill><a:srgbClr val="FF0000"/></a:solidFill><a:custDash><a:ds d="300000" sp="200000"/></a:custDash><a:round/><a:tailEnd type="triangle" w="med" len="med"/></a:ln>',
  );
  expect(lineXml(null, ground)).toBe('<a:ln><a:noFill/></a:ln>');
});

test('a shadow 3 to the right and 4 down is 5 away at 53.13 degrees', () => {
  const xml = effectsXml(
    { outerShadow: { paint: red, opacity: 0.4, blur: 6, dx: 3, dy: 4 }, glow: { paint: blue, opacity: 1, blur: 2 } },
    {},
  );
  expect(xml).toMatch(/^<a:effectLst><a:glow rad="25400">/);
  expect(xml).toContain('<a:outerShdw blurRad="76200" dist="63500" dir="3187806" algn="ctr" rotWithShape="0">');
  expect(effectsXml({}, {})).toBeNull();
});
