import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { parseFragment } from 'parse5';
import type { DefaultTreeAdapterTypes } from 'parse5';
import { getDocument, OPS } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { Item } from '../src/index.ts';
import type { Folio } from '../src/index.ts';
import { Composer } from '../src/compose/index.ts';
import type { FontSet } from '../src/compose/index.ts';
import { GlyphOutlines, paintItems, paintPaper, spreadPicture } from '../src/paint/svg/index.ts';
import { PdfCanvas } from '../src/paint/pdf/pdfCanvas.ts';
import { fontsOf } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

type Node = DefaultTreeAdapterTypes.Element;
let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});

/** Elements of a fragment of markup, with their attributes, in document order. */
function elements(markup: string): { tag: string; a: Record<string, string> }[] {
  const out: { tag: string; a: Record<string, string> }[] = [];
  const walk = (node: DefaultTreeAdapterTypes.Node): void => {
    if ('tagName' in node)
      out.push({ tag: (node as Node).tagName, a: Object.fromEntries((node as Node).attrs.map((x) => [x.name, x.value])) });
    if ('childNodes' in node) node.childNodes.forEach(walk);
  };
  walk(parseFragment(`<svg>${markup}</svg>`));
  return out.slice(1);
}
const paint = (folio: Folio, outlines = new GlyphOutlines()): { svg: string; defs: string } => {
  const composition = new Composer(fonts).compose(folio);
  const svg = paintItems(folio, composition, folio.spreads['s']!, { outlines, href: (m) => `/m/${m}`, shown: () => true })
    .map((i) => i.svg)
    .join('');
  return { svg, defs: outlines.take() };
};
const withItem = (item: object, more: (d: Folio) => void = () => undefined): Folio =>
  produce(tinyFolio(['']), (d) => {
    const parsed = Item.parse({ id: 'i', layer: 'l', transform: [1, 0, 0, 1, 0, 0], ...item });
    d.spreads['s']!.items[parsed.id] = parsed;
    d.spreads['s']!.order.push(parsed.id);
    d.head.swatches['red'] = { id: 'red', name: 'Red', colour: { space: 'rgb', r: 1, g: 0, b: 0 } };
    more(d);
  });
const square = [['M', 0, 0], ['L', 10, 0], ['L', 10, 10], ['L', 0, 10], ['Z']];

describe('SVG', () => {
  test('each glyph is defined once and used where the typesetter put it', () => {
    const folio = tinyFolio(['noon'], { width: 300 });
    const { svg, defs } = paint(folio);
    const paths = elements(defs).filter((e) => e.tag === 'path');
    const uses = elements(svg).filter((e) => e.tag === 'use');
    expect([paths.length, uses.length]).toEqual([2, 4]);
    const line = new Composer(fonts).compose(folio).frames.get('f1')!.lines[0]!;
    const [a, , , , e, f] = /matrix\(([^)]*)\)/
      .exec(elements(svg).filter((x) => x.tag === 'g')[1]!.a['transform']!)![1]!
      .split(' ')
      .map(Number) as number[];
    const run = line.runs[0]!;
    expect([e, f]).toEqual([expect.closeTo(line.x + run.x, 3), expect.closeTo(line.baseline, 3)]);
    const glyphs = [...run.glyphs];
    uses.forEach((u, i) => expect(Number(u.a['x']) * a!).toBeCloseTo(glyphs[i]!.x, 2));
  });

  test('text stays data: markup in names and words cannot get out', () => {
    const folio = withItem({ kind: 'shape', path: square, fill: { type: 'swatch', swatch: 'red' }, id: 'i' });
    const { svg } = paint(folio);
    expect(elements(svg).map((e) => e.tag)).toEqual(expect.arrayContaining(['g', 'path']));
    expect(svg).not.toMatch(/script|on\w+=/);
  });

  test.each([
    ['opacity', { opacity: 0.4 }, { opacity: '0.4' }],
    ['a blend mode (CSS Compositing 1)', { blend: 'multiply' }, { style: 'mix-blend-mode:multiply' }],
    ['a turn', { transform: [0, 1, -1, 0, 5, 6] }, { transform: 'matrix(0 1 -1 0 5 6)' }],
  ])('%s is on the item', (_, over, attributes) => {
    const { svg } = paint(withItem({ kind: 'shape', path: square, fill: { type: 'swatch', swatch: 'red' }, ...over }));
    expect(elements(svg).find((e) => e.a['data-item'] === 'i')!.a).toMatchObject(attributes);
  });

  test('strokes keep weight, dashes, caps and joins; the even-odd rule is said', () => {
    const stroke = { paint: { type: 'swatch', swatch: 'red' }, weight: 2, dashes: [3, 1], cap: 'round', join: 'bevel' };
    const { svg } = paint(
      withItem({ kind: 'shape', path: square, fillRule: 'evenodd', fill: { type: 'swatch', swatch: 'red', tint: 0.5 }, stroke }),
    );
    expect(elements(svg).find((e) => e.tag === 'path')!.a).toMatchObject({
      fill: '#ff8080',
      'fill-rule': 'evenodd',
      stroke: '#ff0000',
      'stroke-width': '2',
      'stroke-dasharray': '3 1',
      'stroke-linecap': 'round',
      'stroke-linejoin': 'bevel',
    });
  });

  test.each(['linear', 'radial'] as const)('%s gradients come with their stops and their own space', (kind) => {
    const stop = (offset: number, tint: number) => ({ offset, paint: { type: 'swatch', swatch: 'red', tint }, opacity: tint });
    const fill = { type: 'gradient', gradient: { kind, stops: [stop(0, 1), stop(1, 0)], transform: [10, 0, 0, 10, 0, 0] } };
    const all = elements(paint(withItem({ kind: 'shape', path: square, fill })).svg);
    const gradient = all.find((e) => e.tag === `${kind}Gradient`)!;
    expect(gradient.a).toMatchObject({ gradientUnits: 'userSpaceOnUse', gradientTransform: 'matrix(10 0 0 10 0 0)' });
    expect(all.filter((e) => e.tag === 'stop').map((s) => [s.a['offset'], s.a['stop-color'], s.a['stop-opacity']])).toEqual([
      ['0', '#ff0000', undefined],
      ['1', '#ffffff', '0'],
    ]);
    expect(all.find((e) => e.tag === 'path')!.a['fill']).toBe(`url(#${gradient.a['id']})`);
  });

  test('a picture is clipped to its box and placed by its matrix; a missing one is a crossed box', () => {
    const picture = { kind: 'picture', media: 'm', size: { width: 20, height: 10 }, placement: [30, 0, 0, 15, -5, -2] };
    const all = elements(paint(withItem(picture)).svg);
    expect(all.find((e) => e.tag === 'image')!.a).toMatchObject({
      href: '/m/m',
      transform: 'matrix(30 0 0 15 -5 -2)',
      preserveAspectRatio: 'none',
    });
    expect(all.find((e) => e.a['clip-path'])!.a['clip-path']).toBe('url(#i-clip)');
    expect(elements(paint(withItem({ ...picture, media: null })).svg).filter((e) => e.tag === 'image')).toEqual([]);
  });

  test('members of a group come in its order; a group that holds itself shows nothing and ends', () => {
    const group = (members: string[]) =>
      withItem({ kind: 'group', id: 'g', members }, (d) => {
        for (const id of ['a', 'b'])
          d.spreads['s']!.items[id] = Item.parse({
            kind: 'shape',
            id,
            layer: 'l',
            transform: [1, 0, 0, 1, 0, 0],
            path: square,
            fill: { type: 'swatch', swatch: 'red' },
          });
      });
    const ids = (folio: Folio): string[] => elements(paint(folio).svg).flatMap((e) => e.a['data-item'] ?? []);
    expect(ids(group(['b', 'a']))).toEqual(['f1', 'g', 'b', 'a']);
    expect(ids(group(['a', 'g', 'b']))).toEqual(['f1']);
  });

  test('a picture of a spread is a file of its own, cut to the pages', () => {
    const folio = tinyFolio(['word']);
    const svg = spreadPicture(
      folio,
      new Composer(fonts).compose(folio),
      folio.spreads['s']!,
      { x: 0, y: 0, width: 595, height: 842 },
      400,
      {
        href: () => undefined,
        shown: () => true,
      },
    );
    expect(svg).toMatch(/^<svg xmlns="http:\/\/www.w3.org\/2000\/svg" width="400" height="566.0\d+" viewBox="0 0 595 842">/);
    expect(svg).toContain('clip-path="url(#pages)"');
    expect(paintPaper(folio, folio.spreads['s']!.pages[0]!)).toContain('fill="#fff"');
  });
});

describe('PDF operators (ISO 32000-1, annex A), read by pdf.js', () => {
  /** Draws on one page and gives the operators back by name. */
  async function drawn(draw: (canvas: PdfCanvas) => void): Promise<{ name: string; args: unknown[] }[]> {
    const canvas = new PdfCanvas(
      { title: 'T', language: 'en', created: new Date(0) },
      {
        red: { id: 'red', name: 'Red', colour: { space: 'rgb', r: 1, g: 0, b: 0 } },
        ink: { id: 'ink', name: 'Ink', colour: { space: 'cmyk', c: 1, m: 0.5, y: 0, k: 0 } },
        copper: {
          id: 'copper',
          name: 'Copper',
          colour: { space: 'spot', ink: 'Copper', alternate: { space: 'cmyk', c: 0, m: 0.5, y: 1, k: 0.2 } },
        },
      },
    );
    const chunks: Uint8Array[] = [];
    const done = (async () => {
      for await (const c of canvas.stream) chunks.push(c);
    })();
    canvas.addPage(100, 50, 0);
    canvas.artifact(() => draw(canvas));
    canvas.end();
    await done;
    const pdf = await getDocument({ data: new Uint8Array(Buffer.concat(chunks)), useSystemFonts: false, verbosity: 0 }).promise;
    const page = await pdf.getPage(1);
    const { fnArray, argsArray } = await page.getOperatorList();
    const names = Object.fromEntries(Object.entries(OPS).map(([k, v]) => [v, k]));
    await pdf.loadingTask.destroy();
    return fnArray.map((fn, i) => ({ name: names[fn]!, args: (argsArray[i] as unknown[] | null) ?? [] }));
  }
  const names = async (draw: (canvas: PdfCanvas) => void): Promise<string[]> => (await drawn(draw)).map((o) => o.name);
  const swatch = (id: string, tint = 1) => ({ type: 'swatch' as const, swatch: id, tint });
  const path = square as never;

  test.each([
    ['red', 1, [255, 0, 0]],
    ['red', 0.5, [255, 128, 128]],
  ])('the RGB swatch %s at tint %f', async (id, tint, expected) => {
    const op = (await drawn((c) => c.fill(path, swatch(id, tint), 'nonzero'))).find((o) => o.name === 'setFillRGBColor')!;
    const [r, g, b] = (
      typeof op.args[0] === 'string' ? [1, 3, 5].map((i) => Number.parseInt((op.args[0] as string).slice(i, i + 2), 16)) : op.args
    ) as number[];
    [r, g, b].forEach((v, i) => expect(Math.abs(v! - expected[i]!)).toBeLessThanOrEqual(1));
  });

  test('process and spot inks stay in their own space', async () => {
    const text = async (id: string): Promise<string> => JSON.stringify(await drawn((c) => c.fill(path, swatch(id, 0.5), 'nonzero')));
    // pdf.js turns every colour into RGB; that both differ from each other and from black shows they arrived.
    const colours = await Promise.all(['red', 'ink', 'copper'].map(text));
    expect(new Set(colours).size).toBe(3);
  });

  test('blend modes and opacity are states of graphics (ISO 32000-1, 8.4.5)', async () => {
    const states = (
      await drawn((c) => {
        c.save();
        c.blend('multiply');
        c.opacity(0.5);
        c.fill(path, swatch('red'), 'evenodd');
        c.restore();
      })
    ).filter((o) => o.name === 'setGState');
    expect(JSON.stringify(states)).toMatch(/"BM","multiply"/);
    expect(JSON.stringify(states)).toMatch(/"ca",0.5/);
  });

  test('strokes say weight, cap, join and dashes; a stroke of no weight draws nothing', async () => {
    const stroke = {
      paint: swatch('red'),
      weight: 3,
      dashes: [2, 1],
      cap: 'round' as const,
      join: 'bevel' as const,
      miterLimit: 4,
      startMarker: 'none' as const,
      endMarker: 'none' as const,
    };
    const ops = await drawn((c) => c.stroke(path, stroke));
    const arg = (name: string): unknown => ops.find((o) => o.name === name)?.args[0];
    expect([arg('setLineWidth'), arg('setLineCap'), arg('setLineJoin'), arg('setDash')]).toEqual([3, 1, 2, [2, 1]]);
    expect(await names((c) => c.stroke(path, { ...stroke, weight: 0 }))).not.toContain('setLineWidth');
    expect(await names((c) => c.fill(path, { type: 'none' }, 'nonzero'))).not.toContain('constructPath');
  });

  test('what is saved is restored, whatever is drawn', async () => {
    const ops = await names((c) => {
      c.save();
      c.clip(path);
      c.transform([1, 0, 0, 1, 5, 5]);
      c.fill(
        path,
        {
          type: 'gradient',
          gradient: {
            kind: 'linear',
            stops: [
              { offset: 0, paint: swatch('red'), opacity: 1 },
              { offset: 1, paint: swatch('ink'), opacity: 1 },
            ],
            transform: [10, 0, 0, 10, 0, 0],
          },
        },
        'nonzero',
      );
      c.restore();
    });
    expect(ops.filter((n) => n === 'save').length).toBe(ops.filter((n) => n === 'restore').length);
    expect(ops).toContain('clip');
  });
});
