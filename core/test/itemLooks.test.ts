import { describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { shownSpread, Stroke } from '../src/index.ts';
import type { Folio, Path } from '../src/index.ts';
import { Composer } from '../src/compose/index.ts';
import { markedLine } from '../src/paint/lineEnds.ts';
import { spreadPicture } from '../src/paint/svg/index.ts';
import { black, lookPage, red, square } from './support/looks.ts';
import { asSample, fontsOf, make } from './support/samples.ts';

const outside = existsSync('/usr/bin/pdftoppm') && existsSync('/usr/bin/qpdf') ? test : test.skip;
const PX = 2;

interface Raster {
  at(x: number, y: number): number[];
  data: Buffer;
}
async function raster(image: Uint8Array | string): Promise<Raster> {
  const { data, info } = await sharp(typeof image === 'string' ? Buffer.from(image) : image, { density: 72 * PX })
    .flatten({ background: '#fff' })
    .resize(400 * PX, 300 * PX, { fit: 'fill' })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  return { data, at: (x, y) => [...data.subarray((y * PX * info.width + x * PX) * 3, (y * PX * info.width + x * PX) * 3 + 3)] };
}

async function asPdf(
  folio: Folio,
): Promise<{ pixels: Raster; structure: string; check: string; ledger: Awaited<ReturnType<typeof make>>['ledger'] }> {
  const made = await make(asSample(folio), 'pdf');
  const folder = await mkdtemp(join(tmpdir(), 'folio-look-'));
  const file = join(folder, 'a.pdf');
  await writeFile(file, await made.read('document.pdf'));
  execFileSync('pdftoppm', ['-r', String(72 * PX), '-png', '-singlefile', file, join(folder, 'p')]);
  const pixels = await raster(new Uint8Array(await readFile(join(folder, 'p.png'))));
  const structure = execFileSync('pdfinfo', ['-struct', file], { encoding: 'utf8' });
  const check = execFileSync('qpdf', ['--check', file], { encoding: 'utf8' });
  await rm(folder, { recursive: true, force: true });
  return { pixels, structure, check, ledger: made.ledger };
}

async function asSvg(folio: Folio): Promise<Raster> {
  const composition = new Composer(await fontsOf(folio)).compose(folio);
  const view = { x: 0, y: 0, width: 400, height: 300 };
  const spread = shownSpread(folio, folio.spreads['s']!);
  return raster(spreadPicture(folio, composition, spread, view, 400, { shown: () => true, href: () => undefined }));
}

/** Mean difference of two pictures, of 255. */
const difference = (a: Raster, b: Raster): number => a.data.reduce((sum, v, i) => sum + Math.abs(v - b.data[i]!), 0) / a.data.length;
/** How far a blurred straight edge has come at a distance from it, in deviations: the normal distribution (Abramowitz and Stegun, table 26.1). */
const NORMAL: Record<number, number> = { 0: 0.5, 0.5: 0.6915, 1: 0.8413, 2: 0.9772 };

describe('effects of items', () => {
  const shadow = { paint: black, opacity: 0.8, blur: 10, dx: 8, dy: 12 };

  test('a shadow falls off its edge as a Gaussian of half its blur (Filter Effects 1, feGaussianBlur)', async () => {
    const pixels = await asSvg(lookPage([square('a', 20, 20, { effects: { outerShadow: { ...shadow, dy: 0, dx: 60 } } })]));
    // The shadow's right edge stands at 20 + 100 + 60; its deviation is 5 points.
    for (const [deviations, share] of Object.entries(NORMAL)) {
      const value = pixels.at(180 + Number(deviations) * 5, 70)[0]!;
      expect(Math.abs(value - 255 * (1 - 0.8 * (1 - share)))).toBeLessThan(8);
    }
  });

  outside.each([
    ['an outer shadow', { outerShadow: shadow }],
    ['an inner shadow', { innerShadow: { ...shadow, paint: red } }],
    ['a glow', { glow: { paint: red, opacity: 1, blur: 16 } }],
    ['a faded edge', { feather: { width: 20 } }],
    ['all of them', { outerShadow: shadow, innerShadow: shadow, glow: { paint: red, opacity: 0.5, blur: 9 }, feather: { width: 8 } }],
  ])('%s looks the same in the PDF, also on an item that is turned and translucent', async (_, effects) => {
    const folio = lookPage([
      square('ground', 0, 150, { fill: red, path: [['M', 0, 0], ['L', 400, 0], ['L', 400, 20], ['L', 0, 20], ['Z']] }),
      square('a', 40, 40, { effects }),
      square('b', 0, 0, { transform: [0.7071, 0.7071, -0.7071, 0.7071, 270, 90], opacity: 0.6, effects }),
    ]);
    const [svg, pdf] = [await asSvg(folio), await asPdf(folio)];
    expect(pdf.check).toMatch(/No syntax or stream encoding errors/);
    expect(difference(svg, pdf.pixels)).toBeLessThan(0.6);
    for (const at of [
      [44, 44],
      [139, 139],
      [150, 150],
      [36, 90],
      [270, 200],
      [230, 160],
    ] as const)
      expect(Math.max(...svg.at(at[0], at[1]).map((v, i) => Math.abs(v - pdf.pixels.at(at[0], at[1])[i]!)))).toBeLessThan(14);
    expect(pdf.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
  });
});

describe('groups', () => {
  const half = { kind: 'group', id: 'g', transform: [1, 0, 0, 1, 0, 0], members: ['m', 'n'], opacity: 0.5 };

  outside('are laid on the page as one: what lies behind inside them does not show through', async () => {
    const folio = lookPage([half, square('m', 50, 50, { fill: black }), square('n', 100, 100, { fill: red, alt: 'A red square.' })]);
    const [svg, pdf] = [await asSvg(folio), await asPdf(folio)];
    // 0.5 of (204, 26, 26) on white.
    for (const pixels of [svg, pdf.pixels]) {
      expect(
        pixels
          .at(125, 125)
          .map((v, i) => Math.abs(v - [230, 141, 141][i]!))
          .every((d) => d <= 2),
      ).toBe(true);
      expect(pixels.at(70, 70).every((v) => Math.abs(v - 128) <= 2)).toBe(true);
    }
    // Figures inside a group's stream stay in the structure tree (ISO 32000-1, 14.7.4.2).
    expect(pdf.structure).toMatch(/Figure/);
    expect(pdf.check).toMatch(/No syntax or stream encoding errors/);
    expect(pdf.ledger.filter((e) => e.outcome !== 'kept' || e.check === 'contradicted')).toEqual([]);
  });

  outside('blend among themselves only, and with the page as one', async () => {
    const folio = lookPage([
      square('ground', 0, 0, { fill: red, path: [['M', 0, 0], ['L', 400, 0], ['L', 400, 300], ['L', 0, 300], ['Z']] }),
      { ...half, opacity: 1, blend: 'multiply' },
      square('m', 50, 50, { fill: { type: 'colour', colour: { space: 'grey', value: 0.5 } }, blend: 'multiply' }),
      square('n', 100, 100, { fill: { type: 'colour', colour: { space: 'grey', value: 0.5 } }, blend: 'multiply' }),
    ]);
    const [svg, pdf] = [await asSvg(folio), await asPdf(folio)];
    // Multiply (ISO 32000-1, 11.3.5.2): 0.8 × 0.5, and where both lie 0.8 × 0.25.
    expect(Math.abs(pdf.pixels.at(60, 60)[0]! - 102)).toBeLessThan(3);
    expect(Math.abs(pdf.pixels.at(125, 125)[0]! - 51)).toBeLessThan(3);
    expect(difference(svg, pdf.pixels)).toBeLessThan(0.3);
  });

  test('are one element of the web edition, but not where something else is read between their members', async () => {
    const members = [square('m', 50, 50, { alt: 'First.' }), square('n', 100, 100, { alt: 'Last.' })];
    const between = square('x', 250, 20, { alt: 'Between.' });
    const strands = (items: string[]) => ({
      structure: { strands: [{ id: 'r', name: 'R', entries: items.map((item) => ({ spread: 's', item })) }] },
    });
    const together = await make(asSample(lookPage([half, ...members, between], strands(['m', 'n', 'x']))), 'html');
    const html = new TextDecoder().decode(await together.read('index.html'));
    expect(html).toMatch(
      /<div class="g" data-group="g" style="z-index:1;opacity:0.5;isolation:isolate"><div[^>]*data-item="m"[\s\S]*data-item="n"/,
    );
    expect(together.ledger.filter((e) => e.outcome !== 'kept')).toEqual([]);
    const apart = await make(asSample(lookPage([half, ...members, between], strands(['m', 'x', 'n']))), 'html');
    expect(new TextDecoder().decode(await apart.read('index.html'))).not.toContain('data-group');
    expect(apart.ledger.filter((e) => e.outcome !== 'kept').map((e) => e.code)).toEqual(['group.apart']);
  });
});

describe('ends of lines', () => {
  const stroke = (more: object): Stroke => Stroke.parse({ paint: { type: 'none' }, weight: 2, ...more });
  const straight: Path = [
    ['M', 0, 0],
    ['L', 100, 0],
  ];

  test('an arrow head has its tip where the line ends, and the line ends inside it', () => {
    const { line, ends } = markedLine(straight, stroke({ endMarker: 'arrow' }));
    expect(ends).toEqual([['M', 100, 0], ['L', 92, 3], ['L', 92, -3], ['Z']]);
    expect(line).toEqual([
      ['M', 0, 0],
      ['L', 92.8, 0],
    ]);
  });

  test('marks stand at the right ends and across the line’s own direction', () => {
    const { ends } = markedLine(
      [
        ['M', 0, 0],
        ['L', 0, 50],
        ['L', 0, 100],
      ],
      stroke({ startMarker: 'bar', endMarker: 'circle' }),
    );
    const xs = ends.slice(-5).flatMap((s) => (s[0] === 'Z' ? [] : [s[1] as number]));
    expect([Math.min(...xs), Math.max(...xs)]).toEqual([-5, 5]);
    expect(ends[0]).toEqual(['M', 3.5, 100]);
  });

  test('a curve is cut at its end without leaving its course', () => {
    const curve: Path = [
      ['M', 0, 0],
      ['C', 0, 50, 50, 100, 100, 100],
    ];
    const { line, ends } = markedLine(curve, stroke({ endMarker: 'arrow' }));
    const [, step] = line;
    expect(step![0]).toBe('C');
    const end = { x: step![5] as number, y: step![6] as number };
    expect(Math.hypot(100 - end.x, 100 - end.y)).toBeCloseTo(7.2, 2);
    expect(ends[0]).toEqual(['M', 100, 100]);
  });

  test('closed outlines, lines without length and lines shorter than their head do no harm', () => {
    const closed: Path = [['M', 0, 0], ['L', 9, 0], ['L', 9, 9], ['Z']];
    expect(markedLine(closed, stroke({ startMarker: 'arrow', endMarker: 'arrow' }))).toEqual({ line: closed, ends: [] });
    for (const path of [
      [['M', 5, 5]],
      [
        ['M', 5, 5],
        ['L', 5, 5],
      ],
      [
        ['M', 0, 0],
        ['L', 1, 0],
      ],
      [['L', 1, 0]],
      [],
    ] as Path[]) {
      const { line, ends } = markedLine(path, stroke({ startMarker: 'arrow', endMarker: 'arrow' }));
      for (const step of [...line, ...ends]) for (const n of step.slice(1)) expect(Number.isFinite(n)).toBe(true);
    }
  });

  outside('are painted alike on screen and in the PDF', async () => {
    const line = (id: string, y: number, startMarker: string, endMarker: string) => ({
      kind: 'shape',
      id,
      transform: [1, 0, 0, 1, 40, y],
      path: [
        ['M', 0, 0],
        ['C', 80, -60, 200, 60, 300, 0],
      ],
      stroke: { paint: black, weight: 4, startMarker, endMarker },
    });
    const folio = lookPage([line('a', 60, 'arrow', 'circle'), line('b', 150, 'bar', 'arrow'), line('c', 240, 'circle', 'bar')]);
    const pdf = await asPdf(folio);
    expect(difference(await asSvg(folio), pdf.pixels)).toBeLessThan(0.6);
    expect(pdf.ledger.filter((e) => e.outcome !== 'kept' || e.check === 'contradicted')).toEqual([]);
  });
});

describe('item styles', () => {
  test('give what an item has not itself, from the nearest style that says it', () => {
    const folio = lookPage(
      [square('a', 0, 0, { style: 'child', fill: { type: 'none' } }), square('b', 0, 0, { style: 'child', opacity: 0.3 })],
      {
        itemStyles: {
          parent: { id: 'parent', name: 'Parent', fill: red, stroke: { paint: black, weight: 3 } },
          child: { id: 'child', name: 'Child', basedOn: 'parent', opacity: 0.5, stroke: { paint: black, weight: 1 } },
          loop: { id: 'loop', name: 'Loop', basedOn: 'loop' },
        },
      },
    );
    const { items } = shownSpread(folio, folio.spreads['s']!);
    expect(items['a']).toMatchObject({ fill: red, opacity: 0.5, stroke: { weight: 1 } });
    expect(items['b']).toMatchObject({ fill: { type: 'colour' }, opacity: 0.3, stroke: { weight: 1 } });
    expect(shownSpread(folio, folio.spreads['s']!)).toBe(shownSpread(folio, folio.spreads['s']!));
  });
});
