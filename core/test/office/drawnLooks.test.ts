import sharp from 'sharp';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { unzipSync } from 'fflate';
import { produce } from 'immer';
import type { Sample } from '@elastic-folio/demo';
import { Folio } from '../../src/index.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { lookPage, square } from '../support/looks.ts';
import { faultsOfOdf } from '../support/odfRules.ts';
import { against, asSample, make, sample } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';
import { faultsOfPptx } from '../support/slideSchema.ts';
import { faultsOfDocx } from '../support/wordSchema.ts';
import { ofToday } from '../support/ofToday.ts';

const rgb = (r: number, g: number, b: number) => ({ type: 'colour', colour: { space: 'rgb', r, g, b } });
const OUTPUTS: [string, Record<string, unknown>, string, (bytes: Uint8Array) => string[]][] = [
  ['pptx', {}, 'document.pptx', faultsOfPptx],
  ['docx', { way: 'laid' }, 'document.docx', faultsOfDocx],
  ['odp', {}, 'document.odp', faultsOfOdf],
  ['odt', { way: 'laid' }, 'document.odt', faultsOfOdf],
];
/** OpenDocument has shadows with hard edges alone. */
const isOpen = (output: string): boolean => output === 'odp' || output === 'odt';

const codeOf = (made: Pick<Made, 'ledger'>, key: string): string | undefined =>
  made.ledger.find((e) => subjectKey(e.subject) === key)?.code;
const pictures = async (made: Made, file: string): Promise<Uint8Array[]> =>
  Object.entries(unzipSync(await made.read(file))).flatMap(([path, bytes]) => (/\.(png|tiff|jpg)$/.test(path) ? [bytes] : []));
const pixel = async (bytes: Uint8Array, x: number, y: number): Promise<number[]> => {
  const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const at = (Math.round(y * (info.height - 1)) * info.width + Math.round(x * (info.width - 1))) * 4;
  return [...data.subarray(at, at + 4)];
};

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

const TODAY = ofToday(OUTPUTS, 1, ([id]) => id);

describe.each(TODAY)('the Almanac as %s', (output, way, file, faultsOf) => {
  test.each([
    { effects: 'drawn', blends: 'drawn' },
    { effects: 'none', whiteGround: 'through' },
    { effects: 'drawn', blends: 'drawn', pictures: 'none' },
    { pictureFormat: 'tiff', crops: 'cut' },
  ])('%j: keeps the rules of the standard, and is read back as its ledger says', async (settings) => {
    const made = await make(almanac, output, { resolution: 36, ...way, ...settings });
    expect(await faultsOf(await made.read(file))).toEqual([]);
    expect(against(made)).toEqual([]);
  });
});

/** Yellow under cyan that is multiplied: green where they lie on one another (Compositing and Blending Level 1, 10.1.2). */
const mixed = lookPage([
  square('below', 50, 50, { fill: rgb(1, 1, 0) }),
  square('above', 100, 50, { fill: rgb(0, 1, 1), blend: 'multiply', alt: 'A cyan square.' }),
]);

describe.each(TODAY)('a square that is multiplied with the one below it, as %s', (output, way, file) => {
  test('is drawn with what shows through it', async () => {
    const made = await make(asSample(mixed), output, { ...way, resolution: 72, blends: 'drawn' });
    const [drawn] = await pictures(made, file);
    expect(await pixel(drawn!, 0.25, 0.5)).toEqual([0, 255, 0, 255]);
    // On white it is as it is by itself.
    expect(await pixel(drawn!, 0.75, 0.5)).toEqual([0, 255, 255, 255]);
    expect(codeOf(made, 'item:above:look')).toBe('blend.drawn');
    expect(codeOf(made, 'item:below:look')).toBe('kept');
    expect(against(made)).toEqual([]);
    const xml = Object.entries(unzipSync(await made.read(file))).flatMap(([p, b]) =>
      p.endsWith('.xml') ? [new TextDecoder().decode(b)] : [],
    );
    expect(xml.some((x) => x.includes('A cyan square.'))).toBe(true);
  });

  test('is laid over it without mixing, where the recipe does not ask for more', async () => {
    const made = await make(asSample(mixed), output, way);
    expect(await pictures(made, file)).toEqual([]);
    expect(codeOf(made, 'item:above:look')).toBe('blend.normal');
  });
});

const SHADOW = { paint: rgb(0, 0, 0), opacity: 1, dx: 20, dy: 0 };
const shadowed = (blur: number, more: object = {}) =>
  lookPage([square('a', 100, 100, { fill: rgb(1, 0, 0), effects: { outerShadow: { ...SHADOW, blur } }, ...more })]);

describe.each(TODAY)('the shadow of a square, as %s', (output, way, file) => {
  test('is a picture under it, where the recipe asks for one', async () => {
    const made = await make(asSample(shadowed(0)), output, { ...way, effects: 'drawn' });
    const drawn = await pictures(made, file);
    expect(drawn).toHaveLength(1);
    const { width, height } = await sharp(drawn[0]).metadata();
    // 100 points wide, moved by 20, the reach of effects on either side: 21 points (the shift and one more).
    expect(width / height).toBeCloseTo(1, 1);
    expect(await pixel(drawn[0]!, (21 + 100 + 15) / 142, 0.5)).toEqual([0, 0, 0, 255]);
    expect((await pixel(drawn[0]!, (21 + 10) / 142, 0.5))[3]).toBe(0);
    expect(codeOf(made, 'item:a:effect.outerShadow')).toBe('effect.picture');
    expect(against(made)).toEqual([]);
  });

  test('is gone, where the recipe says so', async () => {
    const made = await make(asSample(shadowed(0)), output, { ...way, effects: 'none' });
    expect(await pictures(made, file)).toEqual([]);
    expect(codeOf(made, 'item:a:effect.outerShadow')).toBe('effects.off');
    const xml = Object.values(unzipSync(await made.read(file))).map((b) => new TextDecoder().decode(b));
    expect(xml.some((x) => /outerShdw|draw:shadow="visible"/.test(x))).toBe(false);
  });

  test('stays the format’s own, unless it is soft and the format has hard ones only', async () => {
    const hard = await make(asSample(shadowed(0)), output, way);
    expect([codeOf(hard, 'item:a:effect.outerShadow'), (await pictures(hard, file)).length]).toEqual(['kept', 0]);
    const soft = await make(asSample(shadowed(8)), output, way);
    const drawn = isOpen(output);
    expect(codeOf(soft, 'item:a:effect.outerShadow')).toBe(drawn ? 'effect.picture' : 'kept');
    expect(await pictures(soft, file)).toHaveLength(drawn ? 1 : 0);
  });

  test('an edge that fades makes one picture of the square, where it cannot be told', async () => {
    const faded = shadowed(0, { effects: { feather: { width: 10 } } });
    const told = await make(asSample(faded), output, way);
    expect(codeOf(told, 'item:a:effect.feather')).toBe(isOpen(output) ? 'effect.whole' : 'kept');
    const drawn = await make(asSample(faded), output, { ...way, effects: 'drawn' });
    expect(codeOf(drawn, 'item:a:effect.feather')).toBe('effect.whole');
    const [picture] = await pictures(drawn, file);
    expect(await pixel(picture!, 0.5, 0.5)).toEqual([255, 0, 0, 255]);
    expect((await pixel(picture!, 0.01, 0.5))[3]).toBe(0);
  });
});

describe.each(TODAY)('the shadow of a group, as %s', (output, way, file) => {
  // Two red squares, 100 points apart, half seen through; the group is half seen through as well, and lies in another with a glow.
  const grouped = (outer: object = {}) => {
    const folio = lookPage([square('a', 60, 100, { fill: rgb(1, 0, 0) }), square('b', 200, 100, { fill: rgb(1, 0, 0) })]);
    return Folio.parse(
      produce(folio, (d) => {
        const spread = d.spreads['s']!;
        const group = { kind: 'group', layer: 'l', transform: [1, 0, 0, 1, 0, 0] };
        spread.items['g'] = {
          ...group,
          id: 'g',
          members: ['a', 'b'],
          opacity: 0.5,
          effects: { outerShadow: { ...SHADOW, blur: 0 } },
        } as never;
        spread.items['h'] = { ...group, id: 'h', members: ['g'], effects: outer } as never;
        spread.order = ['h'];
      }),
    );
  };

  test('is one picture under all of its members', async () => {
    const made = await make(asSample(grouped()), output, way);
    expect(await faultsOfOne(made)).toEqual([]);
    const drawn = await pictures(made, file);
    expect(drawn).toHaveLength(1);
    // 240 points wide; the reach of effects is 21 points on either side. A shadow beside each square, and none between them.
    const at = (x: number) => pixel(drawn[0]!, (21 + x) / (240 + 42), 0.5);
    expect(await at(110)).toEqual([0, 0, 0, 255]);
    expect((await at(130))[3]).toBe(0);
    expect(await at(250)).toEqual([0, 0, 0, 255]);
    expect(codeOf(made, 'item:g:effect.outerShadow')).toBe('effect.picture');
    expect(against(made)).toEqual([]);
  });

  test('and that of the group around it lies under both; what lies over is over all', async () => {
    const made = await make(
      asSample(grouped({ glow: { paint: rgb(0, 0, 1), opacity: 1, blur: 8 }, innerShadow: { ...SHADOW, blur: 0 } })),
      output,
      way,
    );
    expect(await pictures(made, file)).toHaveLength(3);
    const shown = new TextDecoder().decode(unzipSync(await made.read(file))[MAIN[output]!]);
    expect(stackIn(output, shown)).toBe('eesse');
    expect(codeOf(made, 'item:h:effect.glow')).toBe('effect.picture');
  });

  test('is left out where the recipe says so, and where no picture may be', async () => {
    const none = await make(asSample(grouped()), output, { ...way, effects: 'none' });
    expect([await pictures(none, file), codeOf(none, 'item:g:effect.outerShadow')]).toEqual([[], 'effects.off']);
    const bare = await make(asSample(grouped()), output, { ...way, pictures: 'none' });
    expect([await pictures(bare, file), codeOf(bare, 'item:g:effect.outerShadow')]).toEqual([[], 'effect.apart']);
  });

  const faultsOfOne = async (made: Made): Promise<string[]> => OUTPUTS.find(([id]) => id === output)![3](await made.read(file));
});
/** Effects and shapes of a page from back to front: as they stand in the file, or by the depths that it says. */
const stackIn = (output: string, xml: string): string => {
  const found =
    output === 'docx'
      ? [...xml.matchAll(/relativeHeight="(\d+)".*?<wp:docPr [^>]*name="([^"]*)"/gs)].map((m) => [Number(m[1]), m[2]!] as const)
      : [...xml.matchAll(/<p:cNvPr [^>]*name="([^"]+)"|<draw:(?:frame|path)((?: [\w:-]+="[^"]*")*)/g)]
          .map((m) => m[1] ?? (m[2]!.includes('draw:name="Effect"') ? 'Effect' : 'shape'))
          .map((name, i) => [i, name] as const);
  const shapes = found.filter(([, name]) => name === 'Effect' || name.startsWith('shape'));
  return shapes
    .sort((a, b) => a[0] - b[0])
    .map(([, name]) => (name === 'Effect' ? 'e' : 's'))
    .join('');
};
const MAIN: Record<string, string> = { pptx: 'ppt/slides/slide1.xml', docx: 'word/document.xml', odp: 'content.xml', odt: 'content.xml' };

describe.each(TODAY)('pictures as TIFF, as %s', (output, way, file) => {
  test('are such, each a file that can be opened, and in the place that they had', async () => {
    const made = await make(almanac, output, { resolution: 36, ...way, pages: '1-3', pictureFormat: 'tiff' });
    const files = Object.entries(unzipSync(await made.read(file)));
    const tiffs = files.filter(([path]) => path.endsWith('.tiff'));
    expect(tiffs.length).toBeGreaterThan(1);
    for (const [, bytes] of tiffs) expect((await sharp(bytes).metadata()).format).toBe('tiff');
    expect(against(made)).toEqual([]);
  });
});

test.each(TODAY)('a master item that mixes with what is below it is drawn for each of its pages: as %s', async (output, way, file) => {
  // The same cyan square from a master page, over two grounds: green on yellow, blue on magenta.
  const folio = Folio.parse(
    produce(lookPage([]), (d) => {
      const above = { ...square('above', 100, 100, { fill: rgb(0, 1, 1), blend: 'multiply' }), layer: 'l' };
      d.head.masterPages['m'] = { id: 'm', name: 'M', items: { above }, order: ['above'] } as never;
      const [page] = d.spreads['s']!.pages;
      d.spreads['s']!.pages = [{ ...page!, master: 'm', background: rgb(1, 1, 0) as never }];
      d.spreads['t'] = { ...d.spreads['s']!, id: 't', pages: [{ ...page!, id: 'p2', master: 'm', background: rgb(1, 0, 1) as never }] };
      d.head.spreadOrder.push('t');
    }),
  );
  const made = await make(asSample(folio), output, { ...way, resolution: 36, blends: 'drawn' });
  const drawn = await Promise.all((await pictures(made, file)).map((p) => pixel(p, 0.5, 0.5)));
  expect(drawn.map(String).sort()).toEqual(
    [
      [0, 0, 255, 255],
      [0, 255, 0, 255],
    ].map(String),
  );
  expect(against(made)).toEqual([]);
});
