import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { original, produce } from 'immer';
import { applyEdit } from '../src/index.ts';
import type { Edit, Folio, Inline, Paragraph } from '../src/index.ts';
import { Composer } from '../src/compose/index.ts';
import type { Composition, FontSet } from '../src/compose/index.ts';
import { fontsOf } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});

/** Where every glyph of every frame stands, as one text: quick to compare. */
const marks = (c: Composition): string =>
  [...c.frames.values()]
    .map(
      (f) =>
        `${f.item} ${JSON.stringify(f.boxes)} ` +
        f.lines
          .map((l) =>
            [
              l.paragraph,
              l.start,
              l.end,
              l.x,
              l.baseline,
              l.width,
              ...l.runs.map((r) => [r.text, r.font.key, r.x, r.size, r.wordSpace, ...[...r.glyphs].map((g) => `${g.gid}@${g.x}`)]),
            ].join('|'),
          )
          .join('\n'),
    )
    .join('\n\n');
const fresh = (folio: Folio): Composition => new Composer(fonts).compose(folio);
const WORDS = 'the whole roof of the room sets off slowly and with great dignity to look at another part of the sky'.split(' ');
const text = (seed: number, length: number): string => Array.from({ length }, (_, i) => WORDS[(seed * 7 + i * 3) % WORDS.length]).join(' ');

/** A long text in a chain of frames, with headings that stay with what follows, lists and keeps. */
const chain = (paragraphs: number, frames: number): Folio =>
  produce(
    tinyFolio(
      Array.from({ length: paragraphs }, (_, i) => text(i, 5 + ((i * 11) % 40))),
      {
        width: 120,
        height: 90,
        frames,
        paragraph: { align: 'justify', composer: 'totalFit', widows: 2, orphans: 2, spaceAfter: 3 },
      },
    ),
    (d) => {
      d.head.paragraphStyles['h'] = {
        ...d.head.paragraphStyles['p']!,
        id: 'h',
        basedOn: 'p',
        paragraph: { keepWithNext: 1, spaceBefore: 6 },
      };
      d.head.listStyles['ls'] = {
        id: 'ls',
        name: 'L',
        levels: [{ kind: 'number', text: '{n}.', texts: {}, format: 'decimal', indent: 14 }],
      };
      for (let i = 1; i <= paragraphs; i++) {
        const p = d.stories['t']!.blocks[`p${i}`] as Paragraph;
        if (i % 7 === 0) p.style = 'h';
        if (i % 5 === 0) p.overrides = { list: { style: 'ls', level: 0 } };
      }
    },
  );

/** The same with each frame on a page of its own, and with fields that tell pages, numbers and sections of other paragraphs. */
const referring = (): Folio =>
  produce(chain(40, 24), (d) => {
    const { items, pages } = d.spreads['s']!;
    const first = pages[0]!;
    d.stories['t']!.frames.forEach((frame, i) => {
      if (!i) return;
      const id = `s${i}`;
      const item = items[frame.item]!;
      d.spreads[id] = {
        ...structuredClone(original(d).spreads['s']!),
        id,
        pages: [{ ...structuredClone(original(d).spreads['s']!.pages[0]!), id: `${first.id}-${i}` }],
        items: { [item.id]: { ...item, transform: [1, 0, 0, 1, 10, 10] } },
        order: [item.id],
      };
      delete items[frame.item];
      d.head.spreadOrder.push(id);
      frame.spread = id;
    });
    d.spreads['s']!.order = ['f1'];
    d.head.paragraphStyles['h']!.role = { element: 'h2', startsSection: true, leaveOut: false };
    let n = 0;
    const field = (kind: 'reference' | 'label' | 'sectionName', target?: string): Inline => ({
      type: 'field',
      id: `field${++n}`,
      field: kind,
      ...(target && { target }),
    });
    const add = (id: string, ...fields: Inline[]): void => void (d.stories['t']!.blocks[id] as Paragraph).content.push(...fields);
    add('p2', field('reference', 'p33'), field('label', 'p30'));
    add('p13', field('sectionName'), field('reference', 'p1'));
    add('p22', field('label', 'p35'), field('label', 'p5'));
    add('p37', field('reference', 'p38'), field('sectionName'));
    // A text of its own that changes only by what it refers to.
    const frame = { ...d.spreads['s']!.items['f1']!, id: 'aside', transform: [1, 0, 0, 1, 300, 10] as [1, 0, 0, 1, number, number] };
    d.spreads['s']!.items['aside'] = frame;
    d.spreads['s']!.order.push('aside');
    const content = [field('label', 'p40'), field('label', 'p15')];
    d.stories['u'] = {
      ...structuredClone(original(d).stories['t']!),
      id: 'u',
      frames: [{ spread: 's', item: 'aside' }],
      order: ['u1'],
      blocks: { u1: { kind: 'paragraph', id: 'u1', style: 'p', content } },
    };
    d.head.storyOrder.push('u');
  });

const typing = (paragraph: number, offset: number, content: string[]): Edit => ({
  kind: 'text.replace',
  args: {
    story: 't',
    from: { paragraphId: `p${paragraph}`, offset },
    to: { paragraphId: `p${paragraph}`, offset },
    content: content.map((t) => (t ? [{ type: 'span', text: t }] : [])),
    newIds: content.slice(1).map((_, i) => `new-${paragraph}-${offset}-${i}-${content.join('').length}`),
  },
});

describe('setting again after an edit', () => {
  test('gives the same marks as setting from scratch, whatever was edited in whatever order', () => {
    const edit = fc.record({
      paragraph: fc.integer({ min: 1, max: 40 }),
      offset: fc.integer({ min: 0, max: 12 }),
      content: fc.constantFrom(['x'], ['some more words that move lines '], ['a', 'b'], ['one ', '', 'three']),
    });
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 6 }), (edits) => {
        const composer = new Composer(fonts);
        let folio = chain(40, 24);
        composer.compose(folio);
        for (const e of edits) {
          try {
            folio = applyEdit(folio, typing(e.paragraph, e.offset, [...e.content])).folio;
          } catch {
            continue;
          }
          expect(marks(composer.compose(folio)) === marks(fresh(folio))).toBe(true);
        }
      }),
      { numRuns: 12 },
    );
  });

  test('also where the edit is in a note, an endnote, a cell or a numbered list', () => {
    const inner = produce(chain(30, 24), (d) => {
      const { blocks } = d.stories['t']!;
      const paragraph = (id: string): void =>
        void (blocks[id] = { kind: 'paragraph', id, style: 'p', content: [{ type: 'span', text: text(3, 6) }] });
      for (const [owner, kind] of [
        ['p3', 'footnote'],
        ['p9', 'endnote'],
        ['p14', 'footnote'],
      ] as const) {
        paragraph(`${owner}-note`);
        (blocks[owner] as Paragraph).content.splice(1, 0, { type: 'note', id: `n-${owner}`, kind, order: [`${owner}-note`] });
      }
      paragraph('cell-a');
      paragraph('cell-b');
      const cell = { rows: 1, columns: 1, header: false, verticalAlign: 'top' as const };
      blocks['table'] = {
        kind: 'table',
        id: 'table',
        columns: [
          { unit: 'share', width: 1 },
          { unit: 'share', width: 1 },
        ],
        rows: [{ height: 0, exact: false }],
        headerRows: 0,
        footerRows: 0,
        cells: {
          a: { ...cell, id: 'a', row: 0, column: 0, order: ['cell-a'] },
          b: { ...cell, id: 'b', row: 0, column: 1, order: ['cell-b'] },
        },
      };
      d.stories['t']!.order.splice(6, 0, 'table');
    });
    const composer = new Composer(fonts);
    composer.compose(inner);
    let folio = inner;
    const type = (id: string, content: string): void => {
      const place = { paragraphId: id, offset: 2 };
      const span = { type: 'span' as const, text: content };
      folio = applyEdit(folio, { kind: 'text.replace', args: { story: 't', from: place, to: place, content: [[span]], newIds: [] } }).folio;
      expect([id, marks(composer.compose(folio)) === marks(fresh(folio))]).toEqual([id, true]);
    };
    for (const id of ['p3-note', 'p9-note', 'cell-b', 'p14-note', 'p5', 'p20', 'p14'])
      for (const words of ['x', 'a good many more words than there were ']) type(id, words);
    const moved = produce(folio, (d) => {
      const { blocks } = d.stories['t']!;
      const [note] = (blocks['p3'] as Paragraph).content.splice(1, 1);
      (blocks['p20'] as Paragraph).content.splice(1, 0, note!);
    });
    expect(marks(composer.compose(moved)) === marks(fresh(moved))).toBe(true);
  });

  test('references, numbers and names of sections follow what moves, as if all were set from scratch', () => {
    const edits: [number, string[]][] = [
      [1, ['x']],
      [4, ['a', 'b', 'c']],
      [29, ['words that push what follows to other pages, so that what refers to it must follow ', 'and another']],
      [7, ['Another heading ']],
      [10, ['one more of the list ', 'and another']],
      [34, ['i', '']],
    ];
    for (const partly of [false, true]) {
      const composer = new Composer(fonts);
      let folio = referring();
      composer.compose(folio);
      const shown = (c: Composition): string =>
        [...c.frames.values()].flatMap((f) => f.lines.flatMap((l) => l.runs.map((r) => r.text))).join(' ');
      const before = shown(composer.compose(folio));
      for (const [paragraph, content] of edits) {
        folio = applyEdit(folio, typing(paragraph, 3, content)).folio;
        // On screen what is seen is set first: the rest must be right all the same.
        if (partly) composer.compose(folio, { frames: new Set(['f2']) });
        expect(marks(composer.compose(folio)) === marks(fresh(folio))).toBe(true);
      }
      expect(shown(composer.compose(folio))).not.toBe(before);
    }
  });

  test('frames before the change and after it has died away are the very same objects', () => {
    const folio = chain(60, 40);
    const composer = new Composer(fonts);
    const before = composer.compose(folio);
    const middle = before.frames.get('f12')!.lines.find((l) => l.first)!.paragraph;
    const number = Number(middle.slice(1));
    const after = composer.compose(applyEdit(folio, typing(number, 1, ['i'])).folio);
    const same = [...before.frames].filter(([id, f]) => after.frames.get(id) === f).map(([id]) => Number(id.slice(1)));
    expect(same).toContain(1);
    expect(same.length).toBeGreaterThan(20);
    expect(Math.max(...same)).toBe(40);
    expect(after.frames.get('f12')).not.toBe(before.frames.get('f12'));
  });

  test('only as far as is asked at first, the rest in slices, and then the same marks', () => {
    const folio = chain(60, 30);
    const composer = new Composer(fonts);
    const first = composer.compose(folio, { frames: new Set(['f2']) });
    expect([...first.frames.keys()]).toEqual(['f1', 'f2']);
    let now = 0;
    let turns = 0;
    // A clock that gives each slice one tick: the work is cut by it, not by real time.
    while (!composer.goOn(1, () => now++)) turns++;
    expect(turns).toBeGreaterThan(2);
    expect(marks(composer.compose(folio)) === marks(fresh(folio))).toBe(true);
  });

  test('a change of a style, of the layout and of the order of stories are all noticed', () => {
    const folio = chain(20, 12);
    const composer = new Composer(fonts);
    composer.compose(folio);
    const changes: ((d: Folio) => void)[] = [
      (d) => void (d.head.paragraphStyles['p']!.character.size = 9),
      (d) => void ((d.spreads['s']!.items['f3'] as { size: { height: number } }).size.height = 40),
      (d) => void (d.head.listStyles['ls']!.levels[0]!.text = '({n})'),
      (d) => void d.stories['t']!.frames.pop(),
      (d) => void (d.head.baselineGrid = { start: 0, step: 13 }),
      (d) => void (d.spreads['s']!.items['f2']!.wrap = { kind: 'box', side: 'both', offset: 0 }),
    ];
    let now = folio;
    for (const change of changes) {
      now = produce(now, change);
      expect(marks(composer.compose(now))).toEqual(marks(fresh(now)));
    }
  });

  test('a style that inherits from itself, frames without size and a chain of one lost frame end quietly', () => {
    const odd = produce(chain(6, 3), (d) => {
      d.head.paragraphStyles['h']!.basedOn = 'h';
      Object.assign((d.spreads['s']!.items['f1'] as { size: object }).size, { width: 0, height: 0 });
      d.stories['t']!.frames.push({ spread: 's', item: 'gone' });
    });
    const c = fresh(odd);
    expect(c.frames.get('f1')!.lines).toEqual([]);
    expect(c.stories.get('t')!.overflow).not.toBeNull();
  });
});
