import sharp from 'sharp';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Folio } from '../src/index.ts';
import { groupsToDraw } from '../src/write/html/drawnGroups.ts';
import { HtmlSettings } from '../src/write/html/settings.ts';
import { asSample, make, sample } from './support/samples.ts';
import type { Made } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';
import { missingFiles, text } from './support/webFaults.ts';

const RED = { type: 'colour', colour: { space: 'rgb', r: 1, g: 0, b: 0 } } as const;
const BLUE = { type: 'colour', colour: { space: 'rgb', r: 0, g: 0, b: 1 } } as const;

/** A page with a group of two squares that lie 20 points apart, the second on top of a corner of the first. */
const twoSquares = Folio.parse(
  produce(tinyFolio(['x']), (d) => {
    const [spread] = Object.values(d.spreads);
    const square = (id: string, at: number, fill: object, more: object = {}) => ({
      kind: 'shape',
      id,
      layer: d.head.layerOrder[0],
      transform: [1, 0, 0, 1, at, at],
      path: [['M', 0, 0], ['L', 40, 0], ['L', 40, 40], ['L', 0, 40], ['Z']],
      fill,
      ...more,
    });
    Object.assign(spread!.items, {
      a: square('a', 100, RED, { alt: 'A red square.' }),
      b: square('b', 120, BLUE),
      g: { kind: 'group', id: 'g', layer: d.head.layerOrder[0], transform: [1, 0, 0, 1, 0, 0], members: ['a', 'b'] },
    });
    spread!.order.push('g');
  }),
);
const settings = HtmlSettings.parse({ groups: 'picture' });

describe('a group of shapes', () => {
  let made: Made;
  beforeAll(
    async () =>
      void (made = await make(asSample(twoSquares), 'html', { groups: 'picture', pictureFormat: 'png', resolution: 72 }, twoSquares)),
  );

  test('is one picture of its own size, with what its parts say', async () => {
    const html = await text(made, 'index.html');
    expect(html).not.toContain('data-item="a"');
    const image = /<div class="i" data-item="g"[^>]*style="([^"]*)"[^>]*>.*?<img src="([^"]+)"[^>]*alt="([^"]*)"/s.exec(html)!;
    expect(image[3]).toBe('A red square.');
    // 60 points from the first corner to the last, at 72 to the inch.
    const { data, info } = await sharp(await made.read(image[2]!))
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([60, 60]);
    const at = (x: number, y: number): number[] => [...data.subarray((y * 60 + x) * 4, (y * 60 + x) * 4 + 4)];
    expect([at(5, 5), at(30, 30), at(55, 55)]).toEqual([
      [255, 0, 0, 255],
      [0, 0, 255, 255],
      [0, 0, 255, 255],
    ]);
    // Nothing covers what is beside it.
    expect(at(55, 5)[3]).toBe(0);
    expect(await missingFiles(made)).toEqual([]);
  });

  test('is said to be drawn, and borne out by reading back', () => {
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    const drawn = made.ledger.filter((e) => e.code === 'group.drawn').map((e) => e.subject.id);
    expect(new Set(drawn)).toEqual(new Set(['a', 'b', 'g']));
  });
});

describe('groups that stay parts', () => {
  const [spread] = Object.keys(twoSquares.spreads);
  const but = (change: (items: Record<string, Record<string, unknown>>) => void): Folio =>
    produce(twoSquares, (d) => change(d.spreads[spread!]!.items as never)) as Folio;
  const cue = (steps: unknown[]) => ({ c: { id: 'c', trigger: { kind: 'press' }, steps } });
  test.each<[string, Folio]>([
    ['one that something acts upon', but((items) => void (Object.values(items)[0]!['cues'] = cue([{ do: 'show', items: ['b'] }])))],
    ['one with something to press in it', but((items) => void (items['a']!['cues'] = cue([{ do: 'go', to: { to: 'next' } }])))],
    ['one that is shown later', but((items) => void (items['g']!['startsHidden'] = true))],
    [
      'one with text in it',
      but(
        (items) =>
          void (items['g']!['members'] as string[]).push(Object.values(items).find((i) => i['kind'] === 'textFrame')!['id'] as string),
      ),
    ],
    ['an empty one', but((items) => void (items['g']!['members'] = []))],
  ])('%s', (_, folio) => {
    expect(groupsToDraw(twoSquares, settings)).toHaveLength(1);
    expect(groupsToDraw(folio, settings)).toEqual([]);
  });

  test('all, where the recipe does not ask for it', () => {
    expect(groupsToDraw(twoSquares, HtmlSettings.parse({}))).toEqual([]);
  });
});

test('the Almanac’s groups are drawn, read back, and fewer marks come to the reader', async () => {
  const s = await sample('marrowby-almanac');
  const [parts, drawn] = [await make(s, 'html', { pages: '12-16' }), await make(s, 'html', { pages: '12-16', groups: 'picture' })];
  expect(drawn.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
  expect(drawn.valid).toBe(true);
  expect(drawn.paths.filter((p) => p.includes('drawn-')).length).toBeGreaterThan(1);
  const marks = async (made: Made): Promise<number> => (await text(made, 'index.html')).match(/<path/g)!.length;
  expect(await marks(drawn)).toBeLessThan((await marks(parts)) / 2);
});
