import { beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { produce } from 'immer';
import { Folio, Item } from '../../src/index.ts';
import { getDocument } from '../../src/ledger/pdf/pdfjs.ts';
import { asSample, make, readBack } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';
import { motionFolio, press, SOUND, SOUND_FILE } from '../support/motionFolio.ts';
import { objectsSeenByQpdf, withPdf } from '../support/qpdf.ts';
import type { Json } from '../support/qpdf.ts';

/** Beside what moves already: a sound that is played by a press, and one cue for each thing that a PDF has no action for. */
const folio = Folio.parse(
  produce(motionFolio(), (d) => {
    d.head.media['sound'] = SOUND_FILE;
    const s = d.spreads['s']!;
    const add = (id: string, x: number, more: object): void => {
      s.items[id] = Item.parse({ id, layer: 'l', transform: [1, 0, 0, 1, x, 300], ...more });
      s.order.push(id);
    };
    const shape = (id: string, x: number, cues: object): void =>
      add(id, x, {
        kind: 'shape',
        alt: id,
        path: [['M', 0, 0], ['L', 9, 0], ['L', 9, 9], ['Z']],
        fill: { type: 'colour', colour: { space: 'grey', value: 0 } },
        cues,
      });
    add('bell', 20, { kind: 'media', size: { width: 60, height: 20 }, media: 'sound', alt: 'The bell', loop: true });
    shape('ring', 100, press('p-ring', { do: 'play', media: 'bell' }, { do: 'resetForm' }));
    shape('hover', 120, { 'p-over': { id: 'p-over', trigger: { when: 'pointerOver' }, steps: [{ do: 'show', items: ['hint'] }] } });
    shape('print', 140, press('p-print', { do: 'print' }));
    shape('move', 160, press('p-move', { do: 'animate', items: ['dot'], kind: 'fade', seconds: 1 }, { do: 'hide', items: ['dot'] }));
    shape('late', 180, press('p-late', { do: 'show', items: ['hint'], after: 2 }));
    shape('turned', 200, { 'p-card': { id: 'p-card', trigger: { when: 'cardChanged' }, steps: [{ do: 'hide', items: ['dot'] }] } });
    // A box with looks of its own: red while it is on, which it is from the start.
    const red = { type: 'colour', colour: { space: 'rgb', r: 1, g: 0, b: 0 } };
    add('own', 240, {
      kind: 'field',
      size: { width: 20, height: 20 },
      control: { type: 'checkBox', on: true },
      fieldName: 'own',
      label: 'Own looks',
      onLook: 'own-on',
      offLook: 'own-off',
    });
    for (const [id, fill] of [
      ['own-on', red],
      ['own-off', { type: 'colour', colour: { space: 'rgb', r: 0, g: 0, b: 1 } }],
    ] as const)
      s.items[id] = Item.parse({
        kind: 'shape',
        id,
        layer: 'l',
        transform: [1, 0, 0, 1, 240, 300],
        path: [['M', 0, 0], ['L', 20, 0], ['L', 20, 20], ['L', 0, 20], ['Z']],
        fill,
      });
    s.pages[0]!.cues['p-left'] = { id: 'p-left', trigger: { when: 'pageLeft' }, steps: [{ do: 'stop', media: 'bell', after: 0 }] };
  }),
);

let made: Made;
let objects: Map<string, Json>;
const named = (name: string): Json[] => [...objects.values()].filter((o) => o['/NM'] === `u:${name}`);
const at = (ref: unknown): Json => objects.get(String(ref))!;
const ocg = (name: string): string => [...objects].find(([, o]) => o['/Type'] === '/OCG' && o['/Name'] === `u:${name}`)![0];

beforeAll(async () => {
  made = await make(asSample(folio), 'pdf', {}, folio, { media: async () => SOUND });
  objects = await objectsSeenByQpdf(await made.read('document.pdf'));
});

describe('actions of cues (ISO 32000-1, 12.6), as qpdf reads them', () => {
  test('a press that turns cards on is one place for each card, in that card’s layer (12.6.4.12)', () => {
    const places = named('cue q-next');
    const [one, two] = [ocg('One'), ocg('Two')];
    expect(places.map((p) => [p['/OC'], (p['/A'] as Json)['/State']])).toEqual([
      [one, ['/OFF', one, '/ON', two]],
      [two, ['/OFF', two, '/ON', one]],
    ]);
    expect(places.every((p) => p['/Subtype'] === '/Link' && (p['/A'] as Json)['/S'] === '/SetOCGState')).toBe(true);
  });

  test('layers: which are off to begin with, and that cards take turns (8.11.4.3, table 101)', () => {
    const [catalog] = [...objects.values()].filter((o) => o['/Type'] === '/Catalog');
    const { '/OCGs': all, '/D': d } = catalog!['/OCProperties'] as { '/OCGs': string[]; '/D': Json };
    expect(new Set(all)).toEqual(new Set([ocg('One'), ocg('Two'), ocg('dot'), ocg('A hint')]));
    expect(new Set(d['/OFF'] as string[])).toEqual(new Set([ocg('Two'), ocg('A hint')]));
    expect(d['/RBGroups']).toEqual([[ocg('One'), ocg('Two')]]);
  });

  test('a toggle, then the form is sent as a form of the web; steps follow one another (12.6.2)', () => {
    const [both] = named('cue q-both');
    const action = both!['/A'] as Json;
    expect(action).toMatchObject({ '/S': '/SetOCGState', '/State': ['/Toggle', ocg('dot'), ocg('A hint')] });
    expect(action['/Next']).toMatchObject({
      '/S': '/SubmitForm',
      '/Flags': 4,
      '/F': { '/FS': '/URL', '/F': 'u:https://marrowby.example/answers' },
    });
  });

  test('a sound is played in a place of its own, out of the file itself (13.2.3), and listed with it', () => {
    const [screen] = named('item bell');
    const { '/R': r, '/OP': op, '/AN': an } = screen!['/A'] as Json;
    expect([screen!['/Subtype'], op, at(an)]).toEqual(['/Screen', 0, screen]);
    const played = at(r);
    expect(played).toMatchObject({ '/S': '/MR', '/C': { '/S': '/MCD', '/CT': 'u:audio/wav' }, '/P': { '/BE': { '/C': true, '/RC': 0 } } });
    const file = at((played['/C'] as Json)['/D'] as string);
    expect(at((file['/EF'] as Json)['/F'])).toMatchObject({ '/Type': '/EmbeddedFile', '/Params': { '/Size': SOUND.length } });
    const [ring] = named('cue p-ring');
    expect(ring!['/A']).toMatchObject({ '/S': '/Rendition', '/OP': 4, '/AN': an, '/R': r, '/Next': { '/S': '/ResetForm' } });
  });

  test('a box with looks of its own has them as its appearances (12.5.5), and shows the one that it begins with', async () => {
    const [widget] = [...objects.values()].filter((o) => o['/T'] === 'u:own');
    const looks = (widget!['/AP'] as Json)['/N'] as Json;
    for (const state of ['/yes', '/Off']) expect(at(looks[state])['/BBox']).toEqual(widget!['/Rect']);
    const { data, info } = await withPdf(await made.read('document.pdf'), async (file, folder) => {
      execFileSync('pdftoppm', ['-r', '72', '-png', file, join(folder, 'a')]);
      const [png] = (await readdir(folder)).filter((f) => f.endsWith('.png'));
      return sharp(join(folder, png!)).removeAlpha().raw().toBuffer({ resolveWithObject: true });
    });
    const pixel = (x: number, y: number): number[] => [...data.subarray((y * info.width + x) * 3, (y * info.width + x) * 3 + 3)];
    expect(pixel(250, 310)).toEqual([255, 0, 0]);
  });

  test('the pointer is noticed by a button of the form (table 194); a page tells of its end (table 195)', () => {
    const [over] = named('cue p-over');
    expect(over).toMatchObject({
      '/Subtype': '/Widget',
      '/FT': '/Btn',
      '/AA': { '/E': { '/S': '/SetOCGState', '/State': ['/ON', ocg('A hint')] } },
    });
    const [page] = [...objects.values()].filter((o) => o['/Type'] === '/Page');
    expect(page!['/AA']).toMatchObject({ '/C': { '/S': '/Rendition', '/OP': 1 } });
  });
});

test('pdf.js follows a link of its own kind, and knows which layers are off', async () => {
  const pdf = await getDocument({ data: (await made.read('document.pdf')).slice(), verbosity: 0 } as never).promise;
  const annotations = (await (await pdf.getPage(1)).getAnnotations()) as unknown as Record<string, unknown>[];
  expect(annotations.some((a) => a['unsafeUrl'] === 'https://marrowby.example/')).toBe(true);
  const states = annotations.flatMap((a) => (a['setOCGState'] as { state: unknown[] } | undefined)?.state[0] ?? []);
  expect(states).toContain('Toggle');
  const config = (await pdf.getOptionalContentConfig()) as unknown as Iterable<[string, { name: string; visible: boolean }]>;
  expect(Object.fromEntries([...config].map(([, g]) => [g.name, g.visible]))).toEqual({
    One: true,
    Two: false,
    dot: true,
    'A hint': false,
  });
  await pdf.destroy();
});

describe('the ledger', () => {
  const become = (id: string, aspect = 'motion'): string => {
    const e = made.ledger.find((x) => x.subject.id === id && x.subject.aspect === aspect)!;
    return `${e.outcome === 'kept' ? 'kept' : e.code} ${e.check}`;
  };

  test('names what a PDF has no action for, each by its code, and bears out all else', () => {
    expect(
      ['q-next', 'q-both', 'q-link', 'p-ring', 'p-over', 'p-left', 'p-print', 'p-move', 'p-late', 'p-card', 'q-shown'].map((id) =>
        become(id),
      ),
    ).toEqual([
      'kept confirmed',
      'pdf.atOnce confirmed',
      'kept confirmed',
      'kept confirmed',
      'kept confirmed',
      'kept confirmed',
      'pdf.noPrint confirmed',
      'pdf.noAnimation confirmed',
      'pdf.atOnce confirmed',
      'pdf.noTrigger confirmed',
      'pdf.noAnimation confirmed',
    ]);
    expect([become('bell', 'media'), become('sw')]).toEqual(['kept confirmed', 'switcher.layers uncheckable']);
    expect(made.valid).toBe(true);
  });

  test('with only first cards there is nothing to turn, and later cards are not in the file', async () => {
    const first = await make(asSample(folio), 'pdf', { cards: 'first' }, folio, { media: async () => SOUND });
    const of = (id: string): string => first.ledger.find((x) => x.subject.id === id && x.subject.aspect === 'motion')!.code;
    expect([of('q-next'), of('sw')]).toEqual(['pdf.noCards', 'switcher.first']);
    expect(first.valid).toBe(true);
    // Boxes have the looks that were drawn for them all the same, the one not seen at first too.
    const all = await objectsSeenByQpdf(await first.read('document.pdf'));
    const looks = ([...all.values()].find((o) => o['/T'] === 'u:own')!['/AP'] as Json)['/N'] as Json;
    const [on, off] = ['/yes', '/Off'].map((state) => all.get(looks[state] as string)!);
    expect([on!['/BBox'], off!['/BBox']]).toEqual([on!['/BBox'], on!['/BBox']]);
    expect(on!['/Resources']).toEqual(off!['/Resources']);
  });

  test('a file that lost an action is found out', async () => {
    const bytes = await made.read('document.pdf');
    const text = Buffer.from(bytes).toString('latin1');
    expect(text).toContain('/S /ResetForm');
    const broken = new Uint8Array(Buffer.from(text.replace('/S /ResetForm', '/S /Nothing__'), 'latin1'));
    const evidence = await readBack(asSample(folio), 'pdf', new Map([['document.pdf', broken]]));
    const e = evidence.find((x) => x.subject.id === 'p-ring')!;
    expect(e).toMatchObject({ agrees: false });
  });
});
