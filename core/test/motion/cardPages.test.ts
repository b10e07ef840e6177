import { beforeAll, describe, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import sharp from 'sharp';
import { produce } from 'immer';
import { Folio, Item } from '../../src/index.ts';
import { getDocument } from '../../src/ledger/pdf/pdfjs.ts';
import { openFile } from '../../src/ledger/pdf/pdfFile.ts';
import { structureTrees } from '../../src/ledger/pdf/structureTree.ts';
import type { StructureContent, StructureNode } from '../../src/ledger/pdf/structureTree.ts';
import { asSample, make, readBack } from '../support/samples.ts';
import type { Made } from '../support/samples.ts';
import { motionFolio, press, SOUND, SOUND_FILE } from '../support/motionFolio.ts';
import { objectsSeenByQpdf, withPdf } from '../support/qpdf.ts';
import type { Json } from '../support/qpdf.ts';

/** Three cards with words, on the second of them a switcher of its own; beside them fields, a sound, and words that come after. */
const folio = Folio.parse(
  produce(motionFolio(), (d) => {
    d.head.media['sound'] = SOUND_FILE;
    d.head.opening = { fullScreen: false, view: 'spread', showBookmarks: false, loop: false };
    d.head.paragraphStyles['h'] = {
      ...structuredClone(motionFolio().head.paragraphStyles['p']!),
      id: 'h',
      name: 'Head',
      role: { element: 'h2', startsSection: false, leaveOut: false },
    };
    const s = d.spreads['s']!;
    const words = (id: string, text: string, x: number, y: number, style = 'p'): string => {
      s.items[id] = Item.parse({ kind: 'textFrame', id, layer: 'l', transform: [1, 0, 0, 1, x, y], size: { width: 90, height: 14 } });
      const block = { kind: 'paragraph' as const, id: `${id}-p`, style, content: [{ type: 'span' as const, text }] };
      d.stories[`${id}-t`] = {
        id: `${id}-t`,
        blocks: { [block.id]: block },
        order: [block.id],
        links: {},
        frames: [{ spread: 's', item: id }],
        items: {},
        aliases: {},
      };
      d.head.storyOrder.push(`${id}-t`);
      return id;
    };
    s.items['dark'] = Item.parse({
      kind: 'shape',
      id: 'dark',
      layer: 'l',
      transform: [1, 0, 0, 1, 40, 425],
      path: [['M', 0, 0], ['L', 9, 0], ['L', 9, 9], ['Z']],
      fill: { type: 'colour', colour: { space: 'grey', value: 0 } },
    });
    s.items['bell'] = Item.parse({
      kind: 'media',
      id: 'bell',
      layer: 'l',
      transform: [1, 0, 0, 1, 20, 300],
      size: { width: 60, height: 20 },
      media: 'sound',
      alt: 'The bell',
      autoplay: true,
    });
    s.items['inner'] = Item.parse({
      kind: 'switcher',
      id: 'inner',
      layer: 'l',
      transform: [1, 0, 0, 1, 140, 420],
      size: { width: 100, height: 20 },
      cards: [
        { id: 'i1', name: 'I1', items: [words('in1', 'Inner one', 140, 420)] },
        { id: 'i2', name: 'I2', items: [words('in2', 'Inner two', 140, 420)] },
      ],
    });
    s.items['talk'] = Item.parse({
      kind: 'switcher',
      id: 'talk',
      layer: 'l',
      transform: [1, 0, 0, 1, 20, 400],
      size: { width: 260, height: 60 },
      alt: 'Talk',
      change: { kind: 'fade', seconds: 0.7 },
      cards: [
        { id: 'a', name: 'A', items: [words('ta', 'Card one', 20, 400)] },
        { id: 'b', name: 'B', items: [words('tb', 'Card two', 20, 400, 'h'), 'inner'] },
        { id: 'c', name: 'C', items: [words('tc', 'Card three', 20, 400), 'dark'] },
      ],
    });
    words('after', 'Words after', 20, 480);
    s.items['after']!.cues = press(
      'p-three',
      { do: 'showCard', switcher: 'talk', card: 'c', after: 0 },
      { do: 'play', media: 'bell', after: 0 },
    ) as never;
    s.order.push('talk', 'after', 'bell');
    s.pages[0]!.cues['p-first'] = {
      id: 'p-first',
      trigger: { when: 'pageShown' },
      steps: [{ do: 'showCard', switcher: 'talk', card: 'b', afterLast: 'again', after: 0 }],
    };
  }),
);

let made: Made;
let bytes: Uint8Array;
let objects: Map<string, Json>;
const at = (ref: unknown): Json => objects.get(String(ref))!;
const named = (name: string): Json[] => [...objects.values()].filter((o) => o['/NM'] === `u:${name}`);
const catalog = (): Json => [...objects.values()].find((o) => o['/Type'] === '/Catalog')!;
const pages = (): string[] => at(catalog()['/Pages'])['/Kids'] as string[];

beforeAll(async () => {
  made = await make(asSample(folio), 'pdf', { cards: 'pages' }, folio, { media: async () => SOUND });
  bytes = await made.read('document.pdf');
  objects = await objectsSeenByQpdf(bytes);
});

describe('cards as pages of a PDF', () => {
  // One page; one more for the second card of “sw”, two for those of “talk”, one for the second of the switcher on a card.
  test('each further card is a page after its own, named after it (ISO 32000-1, 12.4.2)', () => {
    expect(pages()).toHaveLength(5);
    const { '/Nums': nums } = catalog()['/PageLabels'] as { '/Nums': unknown[] };
    expect(nums.map((x) => (typeof x === 'number' ? x : (at(x) ?? x)))).toEqual(
      ['1', '1-2', '1-3', '1-4', '1-5'].flatMap((label, i) => [i, { '/P': `u:${label}` }]),
    );
    expect(catalog()['/PageLayout']).toBe('/SinglePage');
  });

  const actionOf = (page: number, cue: string): Json => {
    const annotations = (at(pages()[page])['/Annots'] as string[]).map(at);
    return annotations.find((a) => a['/NM'] === `u:cue ${cue}`)!['/A'] as Json;
  };

  test('a press goes to the page of the card (12.6.4.2), from each page to the next, and from the last to the first', () => {
    expect([0, 1].map((n) => actionOf(n, 'q-next'))).toEqual([
      { '/S': '/GoTo', '/D': 'u:page.pg/sw/c2' },
      { '/S': '/GoTo', '/D': 'u:page.pg' },
    ]);
    // A card that is named is shown from everywhere, and the sound is played where it is in sight (13.2, table 214).
    const screens = named('item bell');
    expect(screens).toHaveLength(5);
    for (const n of [0, 4]) {
      const action = actionOf(n, 'p-three');
      expect(action).toMatchObject({ '/S': '/GoTo', '/D': 'u:page.pg/talk/c', '/Next': { '/S': '/Rendition' } });
      expect(at(pages()[n])['/Annots']).toContain((action['/Next'] as Json)['/AN']);
    }
  });

  test('every name that is gone to is a place in the file (12.3.2.3)', async () => {
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 } as never).promise;
    const found = await Promise.all(
      ['page.pg', 'page.pg/sw/c2', 'page.pg/talk/b', 'page.pg/talk/c', 'page.pg/inner/i2'].map(async (name) =>
        pdf.getPageIndex((await pdf.getDestination(name))![0] as never),
      ),
    );
    expect(found).toEqual([0, 1, 2, 3, 4]);
    await pdf.destroy();
  });

  test('a switcher on a card is turned on that card’s page, by pressing it where nothing else turns it', () => {
    const turns = (n: number): unknown[] =>
      (at(pages()[n])['/Annots'] as string[])
        .map(at)
        .filter((a) => a['/Subtype'] === '/Link' && a['/NM'] === undefined)
        .flatMap((a) => ((a['/A'] as Json | undefined) ?? {})['/D'] ?? []);
    expect([0, 2, 4].map(turns)).toEqual([[], ['u:page.pg/inner/i2'], ['u:page.pg/talk/b']]);
  });

  test('cards come by a fade where they fade (table 162); the page’s own transition is its first page’s', () => {
    expect(pages().map((p) => (at(p)['/Trans'] as Json | undefined)?.['/S'])).toEqual(['/Wipe', undefined, '/Fade', '/Fade', undefined]);
  });

  test('what begins by itself begins once, and opening a page does not lead away from it', () => {
    expect(named('item bell').filter((s) => s['/AA'])).toHaveLength(1);
    expect(pages().every((p) => at(p)['/AA'] === undefined)).toBe(true);
    const e = made.ledger.find((x) => x.subject.id === 'p-first' && x.subject.aspect === 'motion')!;
    expect(e).toMatchObject({ outcome: 'dropped', code: 'pdf.cardOfPage' });
  });

  test('a field that five pages show is one field, in five places (12.7.3.1)', async () => {
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 } as never).promise;
    const fields = (await pdf.getFieldObjects()) as unknown as Record<string, { id: string; page: number; value: string }[]>;
    const places = fields['tick']!.filter((f) => f.page >= 0);
    expect(places.map((f) => f.page)).toEqual([0, 1, 2, 3, 4]);
    const roots = (catalog()['/AcroForm'] as Json)['/Fields'] as string[];
    expect(roots.map((r) => at(r)['/T']).sort()).toEqual(['u:colour', 'u:tick', 'u:words']);
    await pdf.destroy();
  });

  test('annotations are in the structure tree with the page that they are on (14.7.4.3)', () => {
    const refs = [...objects.values()].flatMap((o) =>
      (Array.isArray(o['/K']) ? (o['/K'] as unknown[]) : []).filter((k): k is Json => (k as Json)['/Type'] === '/OBJR'),
    );
    expect(refs.length).toBeGreaterThan(25);
    for (const r of refs) expect(at(r['/Pg'])['/Annots']).toContain(r['/Obj']);
  });

  test('what is repeated is read once, and cards in their place among the rest: poppler’s text of the tree', () => {
    return withPdf(bytes, (file) => {
      const told = execFileSync('pdfinfo', ['-struct-text', file], { encoding: 'utf8' });
      const words = [...told.matchAll(/"([^"]*)"/g)].map((m) => m[1]!.trim()).filter((w) => /^(Before|Turn on|Card|Inner|Words)/.test(w));
      expect(words).toEqual(['Before', 'Turn on', 'Card one', 'Card two', 'Inner one', 'Inner two', 'Card three', 'Words after']);
    });
  });

  test('our reader numbers that order over pages', async () => {
    const contents = (node: StructureNode): StructureContent[] => node.children.flatMap((c) => ('role' in c ? contents(c) : [c]));
    const onPages = structureTrees(await openFile(bytes))
      .flatMap((tree, page) => tree.flatMap(contents).map(({ at }) => ({ at, page: page + 1 })))
      .sort((a, b) => a.at - b.at)
      .map(({ page }) => page);
    // Two words before, “The second” on its card, what stands beside, the first card; both words of the second, the inner one, the third; and after.
    expect(onPages).toEqual([1, 1, 2, 1, 1, 1, 1, 1, 3, 3, 5, 4, 1]);
  });

  test('pages differ from the first one only where their card is: pixels by poppler', async () => {
    const pictures = await withPdf(bytes, async (file, folder) => {
      execFileSync('pdftoppm', ['-r', '72', '-gray', '-png', file, join(folder, 'p')]);
      const names = (await readdir(folder)).filter((f) => f.endsWith('.png')).sort();
      return Promise.all(names.map((f) => sharp(join(folder, f)).greyscale().raw().toBuffer({ resolveWithObject: true })));
    });
    const [first, ...rest] = pictures;
    const inside = (x: number, y: number, b: { x: number; y: number; w: number; h: number }): boolean =>
      x >= b.x - 1 && x <= b.x + b.w + 1 && y >= b.y - 1 && y <= b.y + b.h + 1;
    const boxes = [
      { x: 20, y: 100, w: 80, h: 60 },
      { x: 20, y: 400, w: 260, h: 60 },
    ];
    for (const [i, { data }] of rest.entries()) {
      const changed = { in: 0, out: 0 };
      for (let p = 0; p < data.length; p++)
        if (Math.abs(data[p]! - first!.data[p]!) > 8)
          changed[inside(p % first!.info.width, Math.floor(p / first!.info.width), boxes[i ? 1 : 0]!) ? 'in' : 'out']++;
      expect(changed.out).toBe(0);
      expect(changed.in).toBeGreaterThan(20);
    }
  });

  test('a heading on a card is a bookmark to that card’s page', async () => {
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 } as never).promise;
    const [outline] = (await pdf.getOutline()) as { title: string; dest: unknown[] }[];
    expect([outline!.title, await pdf.getPageIndex(outline!.dest[0] as never)]).toEqual(['Card two', 2]);
    await pdf.destroy();
  });

  test('the ledger tells it, and reading back bears all of it out', () => {
    const of = (id: string, aspect = 'motion'): string => made.ledger.find((x) => x.subject.id === id && x.subject.aspect === aspect)!.code;
    expect([of('sw'), of('talk'), of('inner')]).toEqual(['switcher.pages', 'switcher.pages', 'switcher.pages']);
    expect(of('tiny', 'opening')).toBe('opening.cards');
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    const cue = made.ledger.find((x) => x.subject.id === 'q-next' && x.subject.aspect === 'motion')!;
    expect(cue).toMatchObject({ outcome: 'kept', check: 'confirmed' });
    expect(made.valid).toBe(true);
  });

  test('a file in which the words of a card are missing is found out', async () => {
    const layers = await make(asSample(folio), 'pdf', { cards: 'first' }, folio, { media: async () => SOUND });
    const evidence = await readBack(asSample(folio), 'pdf', new Map([['document.pdf', await layers.read('document.pdf')]]), {
      cards: 'pages',
    });
    expect(evidence.find((e) => e.subject.id === 'tc-p' && e.subject.aspect === 'text')).toMatchObject({ agrees: false });
  });
});
