import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Composer } from '../src/compose/index.ts';
import type { Composition, FontSet } from '../src/compose/index.ts';
import { incoherences, Item, masterChain, pagesOf, withMasters } from '../src/index.ts';
import type { Folio, Inline } from '../src/index.ts';
import { subjectKey } from '../src/ledger/index.ts';
import { textOfLine } from '../src/structure/reading.ts';
import { WRITERS } from '../src/write/index.ts';
import { asSample, fontsOf, make, readBack, writeOnly } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});
const compose = (folio: Folio): Composition => new Composer(fonts).compose(folio);
const grey = { type: 'colour' as const, colour: { space: 'grey' as const, value: 0.5 } };
const base = { layer: 'l', transform: [1, 0, 0, 1, 20, 800] };
const field = (kind: string): Inline => ({ type: 'field', id: `f-${kind}`, field: kind }) as Inline;

/** Two pages on one spread and one alone, based on a master that is based on another: a rule, a page number, a section's name. */
const book: Folio = produce(
  tinyFolio(['Wheels', 'Text of the first chapter', 'Stars', 'Text of the second'], { frames: 2, height: 300 }),
  (d) => {
    const item = (id: string, over: object): Item => Item.parse({ id, ...base, ...over });
    const rule = item('rule', { kind: 'shape', path: [['M', 0, 0], ['L', 500, 0], ['L', 500, 1], ['L', 0, 1], ['Z']], fill: grey });
    const number = item('number', { kind: 'textFrame', size: { width: 60, height: 20 } });
    const head = item('head', { kind: 'textFrame', size: { width: 200, height: 20 }, transform: [1, 0, 0, 1, 100, 800] });
    d.head.masterPages = {
      root: { id: 'root', name: 'Root', items: { rule }, order: ['rule'] },
      inner: { id: 'inner', name: 'Inner', basedOn: 'root', items: { number, head }, order: ['number', 'head'] },
    };
    const page = d.spreads['s']!.pages[0]!;
    d.spreads['s']!.pages = [
      { ...page, id: 'p-a', master: 'inner' },
      { ...page, id: 'p-b', master: 'inner', box: { ...page.box, x: 595 } },
    ];
    d.spreads['s']!.items['f2']!.transform = [1, 0, 0, 1, 700, 10];
    d.spreads['last'] = {
      id: 'last',
      pages: [{ ...page, id: 'p-c', master: 'inner', showMaster: false }],
      items: {},
      order: [],
      masterOverrides: {},
    };
    d.head.spreadOrder.push('last');
    d.head.paragraphStyles['h'] = {
      ...d.head.paragraphStyles['p']!,
      id: 'h',
      basedOn: 'p',
      paragraph: { breakBefore: 'frame' },
      role: { element: 'h1', startsSection: true, leaveOut: false },
    };
    for (const id of ['p1', 'p3']) (d.stories['t']!.blocks[id] as { style: string }).style = 'h';
    for (const [id, kind, frame] of [
      ['num', 'pageNumber', 'number'],
      ['run', 'sectionName', 'head'],
    ] as const) {
      d.stories[id] = {
        id,
        blocks: { [`${id}1`]: { kind: 'paragraph', id: `${id}1`, style: 'p', content: [field(kind)] } },
        order: [`${id}1`],
        frames: [{ spread: 'inner', item: frame }],
        links: {},
        items: {},
        aliases: {},
      };
      d.head.storyOrder.push(id);
    }
  },
);
const words = (c: Composition, frame: string): string | undefined => c.frames.get(frame)?.lines.map(textOfLine).join('|');

describe('master pages', () => {
  test('a document with them is coherent; a chain that comes back to itself is cut', () => {
    expect(incoherences(book)).toEqual([]);
    const loop = produce(book, (d) => void (d.head.masterPages['root']!.basedOn = 'inner'));
    expect(masterChain(loop, 'inner').map((m) => m.id)).toEqual(['root', 'inner']);
    expect(masterChain(book, undefined)).toEqual([]);
  });

  test('their items stand on every page that shows them, behind its own, the parent’s first', () => {
    const spread = withMasters(book, book.spreads['s']!);
    expect(spread.order).toEqual(['p-a/rule', 'p-a/number', 'p-a/head', 'p-b/rule', 'p-b/number', 'p-b/head', 'f1', 'f2']);
    expect(spread.items['p-b/number']!.transform).toEqual([1, 0, 0, 1, 615, 800]);
    expect(withMasters(book, book.spreads['last']!)).toBe(book.spreads['last']);
    expect(withMasters(book, book.spreads['s']!)).toBe(spread);
    expect(pagesOf(book)[0]!.spread).toBe(spread);
  });

  test('each page has its own number and the name of the section that runs there', () => {
    const c = compose(book);
    expect(['p-a/number', 'p-b/number', 'p-a/head', 'p-b/head'].map((f) => words(c, f))).toEqual(['1', '2', 'Wheels', 'Stars']);
    expect(c.frames.has('p-c/number')).toBe(false);
  });

  test('a page’s own version takes the place of a master item; one that is taken off is gone', () => {
    const own = produce(book, (d) => {
      const moved = { ...(d.head.masterPages['inner']!.items['number'] as Item), transform: [1, 0, 0, 1, 300, 10] } as Item;
      d.spreads['s']!.masterOverrides = { 'p-a/number': moved, 'p-b/rule': null };
    });
    const { items } = withMasters(own, own.spreads['s']!);
    expect(items['p-a/number']!.transform).toEqual([1, 0, 0, 1, 300, 10]);
    expect(items['p-b/rule']).toBeUndefined();
    expect(words(compose(own), 'p-a/number')).toBe('1');
  });

  test('setting again after edits to the text, the pages and the master gives the same as from scratch', () => {
    const composer = new Composer(fonts);
    composer.compose(book);
    const all = (c: Composition): string =>
      JSON.stringify([...c.frames].map(([k, f]) => [k, f.lines.map((l) => [textOfLine(l), l.x, l.baseline])]).sort());
    let now = book;
    const changes: ((d: Folio) => void)[] = [
      (d) => void ((d.stories['t']!.blocks['p1'] as { content: Inline[] }).content = [{ type: 'span', text: 'Rails' }]),
      (d) => void (d.spreads['s']!.pages[1]!.number = 'ix'),
      (d) => void (d.spreads['last']!.pages[0]!.showMaster = true),
      (d) => void ((d.head.masterPages['inner']!.items['number'] as { size: { width: number } }).size.width = 4),
      (d) => void (d.spreads['s']!.pages[0]!.showMaster = false),
    ];
    for (const change of changes) {
      now = produce(now, change);
      expect(all(composer.compose(now))).toBe(all(compose(now)));
    }
    expect(words(composer.compose(now), 'p-b/head')).toBe('Stars');
  });

  test.each(WRITERS.filter((w) => w.view === 'pages').map((w) => w.id))(
    'in %s they are seen and not read, and read back where they stand',
    async (id) => {
      const { ledger, valid } = await make(asSample(book), id);
      expect(ledger.filter((e) => e.check === 'contradicted').map((e) => [subjectKey(e.subject), e.evidence])).toEqual([]);
      expect(valid).toBe(true);
      const entry = (key: string) => ledger.find((e) => subjectKey(e.subject) === key);
      expect(entry('masterItem:p-b/rule:place')).toMatchObject({ outcome: 'kept', check: 'confirmed', pages: ['p-b'] });
      expect(entry('paragraph:num1:text')).toMatchObject({ outcome: 'kept', check: 'confirmed' });
      expect(entry('paragraph:num1:role')).toMatchObject({ outcome: 'excluded', code: 'reading.leftOut' });
      const moved = produce(book, (d) => void (d.head.masterPages['root']!.items['rule']!.transform[5] += 3));
      const against = (await readBack(asSample(book), id, await writeOnly(asSample(book), id, {}, moved))).filter((e) => !e.agrees);
      expect(against.map((e) => subjectKey(e.subject)).sort()).toEqual(['masterItem:p-a/rule:place', 'masterItem:p-b/rule:place']);
    },
  );
});
