import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyEdit, plainText } from '../src/index.ts';
import type { Edit, Folio, Paragraph } from '../src/index.ts';
import { incoherences } from '../src/folio/coherence.ts';
import { pagesOf, paragraphsOf } from '../src/folio/traverse.ts';
import { alignSequences, atLeast } from '../src/alignment/alignSequences.ts';
import { textLikeness } from '../src/alignment/likeness.ts';
import { mapIds } from '../src/newer/mapIds.ts';
import { newerVersion } from '../src/newer/newerVersion.ts';
import { mergeFields, mergeOrder } from '../src/newer/threeWay.ts';
import { readBytes, readFlat } from './odf/support/flatFile.ts';
import { foundFiles } from './odf/support/foundFiles.ts';

const aligned = (a: string[], b: string[]): [number, number][] =>
  alignSequences({ lengths: [a.length, b.length], keys: [a, b], worth: (i, j) => atLeast(0.5, textLikeness(a[i]!, b[j]!)) });

interface Frame {
  text: string;
  y?: number;
  name?: string;
}
const STYLES =
  '<style:style style:name="Head" style:family="graphic"><style:text-properties fo:font-size="28pt"/></style:style><style:style style:name="Body" style:family="graphic"/>';
const BOLD = '<style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style>';
const frame = ({ text, y = 1, name }: Frame): string =>
  `<draw:frame draw:style-name="${y === 1 ? 'Head' : 'Body'}" ${name ? `draw:name="${name}"` : ''} svg:x="1cm" svg:y="${y}cm" svg:width="15cm" svg:height="1.5cm"><draw:text-box>${text
    .split('\n')
    .map((t) => `<text:p>${t}</text:p>`)
    .join('')}</draw:text-box></draw:frame>`;
const file = async (pages: Frame[][]): Promise<Folio> =>
  (
    await readFlat({
      styles: STYLES,
      automatic: BOLD,
      pages: pages
        .map((frames, i) => `<draw:page draw:name="page${i + 1}" draw:master-page-name="M">${frames.map(frame).join('')}</draw:page>`)
        .join(''),
    })
  ).folio;
const EVENINGS: Frame[][] = [
  [{ text: 'Evenings on the hill' }, { text: 'Marrowby opens its dome to visitors', y: 4 }],
  [{ text: 'What you will see' }, { text: 'Saturn and its rings\nThe Pleiades through field glasses\nA meteor, with luck', y: 4 }],
  [{ text: 'How to come' }, { text: 'The path from the village takes forty minutes', y: 4 }],
];
const itemWith = (folio: Folio, text: string): { spread: string; item: string; story: string; paragraph: Paragraph } => {
  for (const story of Object.values(folio.stories))
    for (const p of paragraphsOf(story))
      if (plainText(p.content).includes(text)) return { ...story.frames[0]!, story: story.id, paragraph: p };
  throw new Error(`no “${text}”`);
};
const edited = (folio: Folio, ...edits: Edit[]): Folio => edits.reduce((f, e) => applyEdit(f, e).folio, folio);
/** The first eight letters of a paragraph written anew. */
const begunWith = ({ story, paragraph: { id } }: ReturnType<typeof itemWith>, text: string): Edit => ({
  kind: 'text.replace',
  args: {
    story,
    from: { paragraphId: id, offset: 0 },
    to: { paragraphId: id, offset: 8 },
    content: [[{ type: 'span', text }]],
    newIds: [],
  },
});
const update = (was: Folio, here: Folio, there: Folio, chosen: [string, string][] = [], keep: string[] = []) =>
  newerVersion({ was, here, there, chosen: new Map(chosen), keep: new Set(keep) });
const textsOf = (folio: Folio): string[][] =>
  pagesOf(folio).map(({ spread, page }) =>
    Object.values(folio.stories)
      .filter((s) => s.frames.some((f) => f.spread === spread.id && page))
      .flatMap((s) => [...paragraphsOf(s)].map((p) => plainText(p.content))),
  );

describe('a newer version of the same source', () => {
  test('the same file again changes nothing', async () => {
    const was = await file(EVENINGS);
    const alt: Edit = { kind: 'item.alt', args: { ...itemWith(was, 'Saturn'), alt: 'A list' } };
    const here = edited(was, { ...alt, args: { spread: alt.args.spread, item: alt.args.item, alt: 'A list' } } as Edit);
    const { folio, report } = update(was, here, await file(EVENINGS));
    expect(folio).toEqual(here);
    expect([report.pages, report.items.changed, report.clashes, report.older]).toEqual([
      { same: 3, changed: 0, added: 0, removed: 0 },
      0,
      [],
      [],
    ]);
  });

  test('decisions stay with what they were made for when pages are put in before, moved and written anew', async () => {
    const was = await file(EVENINGS);
    const saturn = itemWith(was, 'Saturn');
    const path = itemWith(was, 'The path');
    const here = edited(
      was,
      { kind: 'item.alt', args: { spread: saturn.spread, item: saturn.item, alt: 'What the telescope shows' } },
      { kind: 'item.decoration', args: { item: path.item, decoration: true } },
      {
        kind: 'style.role',
        args: { style: itemWith(was, 'How to come').paragraph.style, role: { element: 'h1', startsSection: false, leaveOut: false } },
      },
      { kind: 'recipe.set', args: { id: 'r', output: 'pdf', version: 1, name: 'Print', settings: {} } },
    );
    // Page names in such files only count: here every one of them stands for another page than before.
    const there = await file([
      [{ text: 'A word before' }, { text: 'This leaflet replaces that of March', y: 4 }],
      EVENINGS[2]!.map((f) => ({ ...f, text: f.text.replace('forty', 'thirty-five') })),
      EVENINGS[0]!,
      [
        { text: 'What you will see' },
        { text: 'Saturn and its rings, wide open this year\nThe Pleiades through field glasses\nA meteor, with luck', y: 5 },
      ],
    ]);
    const { folio, report } = update(was, here, there);
    expect(incoherences(folio)).toEqual([]);
    expect(textsOf(folio).map((t) => t[0])).toEqual(['A word before', 'How to come', 'Evenings on the hill', 'What you will see']);
    const now = itemWith(folio, 'Saturn and its rings, wide open');
    expect([now.item, now.story, now.paragraph.id]).toEqual([saturn.item, saturn.story, saturn.paragraph.id]);
    expect(folio.spreads[now.spread]!.items[now.item]!.alt).toBe('What the telescope shows');
    expect(folio.head.structure.decorations).toEqual([itemWith(folio, 'thirty-five').item]);
    expect(itemWith(folio, 'thirty-five').item).toBe(path.item);
    expect(folio.head.paragraphStyles[itemWith(folio, 'How to come').paragraph.style]!.role?.element).toBe('h1');
    expect(Object.keys(folio.recipes)).toEqual(['r']);
    expect([report.pages.added, report.pages.removed, report.older]).toEqual([1, 0, []]);
  });

  test('a text written here and in the file: the file’s is taken and the clash is told; what a person keeps stays', async () => {
    const was = await file(EVENINGS);
    const at = itemWith(was, 'Marrowby opens');
    const here = edited(was, begunWith(at, 'The hill'));
    const there = await file([[EVENINGS[0]![0]!, { text: 'Marrowby opens its dome to everybody', y: 4 }], ...EVENINGS.slice(1)]);
    const { report, folio } = update(was, here, there);
    expect(report.clashes).toMatchObject([
      { what: 'text', page: 1, here: 'The hill opens its dome to visitors', there: 'Marrowby opens its dome to everybody', kept: false },
    ]);
    expect(itemWith(folio, 'everybody').paragraph.id).toBe(at.paragraph.id);
    const kept = update(was, here, there, [], [report.clashes[0]!.id]);
    expect(itemWith(kept.folio, 'The hill opens').paragraph.id).toBe(at.paragraph.id);
    expect(kept.report.clashes[0]!.kept).toBe(true);
  });

  test('a change on one side only holds, whichever side it is', async () => {
    const was = await file(EVENINGS);
    const at = itemWith(was, 'Evenings');
    const here = edited(was, begunWith(at, 'Nights'));
    const { folio, report } = update(
      was,
      here,
      await file([EVENINGS[0]!, EVENINGS[1]!, [EVENINGS[2]![0]!, { text: 'The bus stops at the church', y: 4 }]]),
    );
    expect([textsOf(folio)[0]![0], textsOf(folio)[2]![1], report.clashes]).toEqual([
      'Nights on the hill',
      'The bus stops at the church',
      [],
    ]);
  });

  test('what is gone and had decisions is shown beside what is new; a person’s choice carries them over', async () => {
    const was = await file(EVENINGS);
    const at = itemWith(was, 'The path');
    const here = edited(was, { kind: 'item.alt', args: { spread: at.spread, item: at.item, alt: 'The way up' } });
    const there = await file([EVENINGS[0]!, EVENINGS[1]!, [{ text: 'Getting here' }, { text: 'Zwei Busse fahren werktags', y: 7.5 }]]);
    const { report } = update(was, here, there);
    expect(report.older).toMatchObject([
      { id: at.item, kind: 'item', page: 3, says: expect.stringContaining('The path'), decided: ['alt text'] },
    ]);
    const bus = report.newer.find((n) => n.says.startsWith('Zwei Busse'))!;
    const chosen = update(was, here, there, [[bus.id, at.item]]);
    expect(chosen.report.older).toEqual([]);
    const now = itemWith(chosen.folio, 'Zwei Busse');
    expect([now.item, chosen.folio.spreads[now.spread]!.items[now.item]!.alt]).toEqual([at.item, 'The way up']);
  });

  test('pages in pairs, bleed and named looks stay, for new pages too', async () => {
    const bold = EVENINGS.map((p) =>
      p.map((f) => ({ ...f, text: f.text.replace('hill', '<text:span text:style-name="T1">hill</text:span>') })),
    );
    const was = await file(bold);
    const here = edited(
      was,
      { kind: 'styles.nameLooks', args: {} },
      { kind: 'pages.bleed', args: { bleed: 9 } },
      { kind: 'pages.lay', args: { lay: 'coverThenPairs' } },
    );
    const more = [...bold, [{ text: 'One page <text:span text:style-name="T1">more</text:span>' }]];
    const { folio, report } = update(was, here, await file(more));
    expect(folio.head.spreadOrder.map((id) => folio.spreads[id]!.pages.length)).toEqual([1, 2, 1]);
    expect(pagesOf(folio).map((p) => p.page.bleed)).toEqual([9, 9, 9, 9]);
    expect(
      [...Object.values(folio.stories)]
        .flatMap((s) => [...paragraphsOf(s)])
        .some((p) => p.content.some((n) => n.type === 'span' && n.overrides)),
    ).toBe(false);
    // The look was named before: the new page has the same style.
    expect(Object.keys(folio.head.characterStyles)).toEqual(Object.keys(here.head.characterStyles));
    expect([report.pages.added, report.clashes]).toEqual([1, []]);
  });

  test('an update may follow an update', async () => {
    const first = await file(EVENINGS);
    const at = itemWith(first, 'Saturn');
    const here = edited(first, { kind: 'item.alt', args: { spread: at.spread, item: at.item, alt: 'A list' } });
    const second = await file([[{ text: 'New' }], ...EVENINGS]);
    const one = update(first, here, second);
    // What the document was is now the second file, with the ids it got here.
    const was = mapIds(second, (id) => one.ids.get(id) ?? id);
    const two = update(was, one.folio, await file([[{ text: 'New' }], [{ text: 'Newer' }], ...EVENINGS.slice(1)]));
    const now = itemWith(two.folio, 'Saturn');
    expect([now.item, two.folio.spreads[now.spread]!.items[now.item]!.alt]).toEqual([at.item, 'A list']);
    expect(incoherences(two.folio)).toEqual([]);
  });
});

const found = (await foundFiles()).filter((f) => f.bytes.length < 500_000);
const withFiles = found.length ? describe : describe.skip;

withFiles('newer versions of documents by other people', () => {
  test.each(found.map((f) => [f.name, f.bytes] as const))(
    '%s: the same file changes nothing; one without its first page loses that page only',
    async (name, bytes) => {
      const read = async (): Promise<Folio> => {
        const { folio, done } = await readBytes(name, bytes);
        await done();
        return folio;
      };
      const was = await read();
      const spreads = was.head.spreadOrder.map((id) => was.spreads[id]!);
      const alts = spreads.flatMap((s) =>
        Object.values(s.items).map((i): Edit => ({ kind: 'item.alt', args: { spread: s.id, item: i.id, alt: `about ${i.id}` } })),
      );
      const here = edited(was, ...alts.slice(0, 200));
      const same = update(was, here, await read());
      expect(same.folio).toEqual(here);
      expect([same.report.clashes, same.report.older]).toEqual([[], []]);
      if (spreads.length < 2) return;
      const there = await read();
      const [first] = there.head.spreadOrder;
      there.head.spreadOrder.shift();
      delete there.spreads[first!];
      for (const story of Object.values(there.stories))
        if (story.frames.some((f) => f.spread === first)) {
          delete there.stories[story.id];
          there.head.storyOrder = there.head.storyOrder.filter((id) => id !== story.id);
        }
      const { folio, report } = update(was, here, there);
      expect([folio.head.spreadOrder.length, report.pages.removed]).toEqual([spreads.length - 1, 1]);
      expect(incoherences(folio)).toEqual([]);
      // Every item of the other pages has what was written about it.
      for (const id of folio.head.spreadOrder)
        for (const item of Object.values(folio.spreads[id]!.items)) expect(item.alt).toBe(here.spreads[id]!.items[item.id]!.alt);
    },
  );
});

describe('what it is made of', () => {
  test('rows are aligned as a reader would: changed ones in their place, moved ones not at all', () => {
    const rows = (text: string): string[] => text.split(' ');
    const pairs = (a: string, b: string): string[] => {
      const [x, y] = [rows(a), rows(b)];
      return aligned(x, y).map(([i, j]) => `${x[i]}>${y[j]}`);
    };
    expect(pairs('one two three', 'one three')).toEqual(['one>one', 'three>three']);
    expect(pairs('telescope meteor', 'telescopes meteor')).toEqual(['telescope>telescopes', 'meteor>meteor']);
    expect(pairs('a b', 'c d')).toEqual([]);
  });

  test('aligned rows rise on both sides, each row once, and equal lists match whole', () => {
    const list = fc.array(fc.constantFrom('a', 'b', 'c', 'dome', 'domes', 'hill'), { maxLength: 14 });
    fc.assert(
      fc.property(list, list, (a, b) => {
        const pairs = aligned(a, b);
        pairs.forEach(([i, j], n) => {
          if (n) expect([i > pairs[n - 1]![0], j > pairs[n - 1]![1]]).toEqual([true, true]);
        });
        expect(aligned(a, a)).toHaveLength(a.length);
      }),
    );
  });

  test('likeness is Dice’s coefficient of three-letter runs (worked by hand)', () => {
    // “ night ” has _ni nig igh ght ht_, “ nacht ” _na nac ach cht ht_: one of five and five in common.
    expect(textLikeness('night', 'nacht')).toBeCloseTo(0.2, 9);
    expect([textLikeness('x', 'x'), textLikeness('', 'x'), textLikeness('Dome', 'dome')]).toEqual([1, 0, 1]);
  });

  test('fields: a change on one side holds, changes on both clash; hair’s breadths are none', () => {
    const there = () => 'there' as const;
    expect(mergeFields({ a: 1, b: 1, c: 1 }, { a: 2, b: 1, c: 2 }, { a: 1, b: 2, c: 3 }, there)).toEqual({
      merged: { a: 2, b: 2, c: 3 },
      clashes: [{ field: 'c', here: 2, there: 3 }],
    });
    expect(mergeFields({ t: [1, 100] }, { t: [1, 100.0000000001] }, { t: [1, 50] }, there)).toEqual({
      merged: { t: [1, 50] },
      clashes: [],
    });
  });

  test('orders: the file’s, without what was taken out here, with what was put in here', () => {
    expect(mergeOrder(['a', 'b', 'c'], ['a', 'x', 'c'], ['c', 'a', 'b', 'd'])).toEqual(['c', 'a', 'x', 'd']);
  });

  test('ids change wherever the schema says one stands, and in no text', async () => {
    const folio = await file([[{ text: 'text-1' }]]);
    const [item] = Object.keys(Object.values(folio.spreads)[0]!.items);
    const other = mapIds(folio, (id) => `${id}-x`);
    expect(incoherences(other)).toEqual([]);
    expect(JSON.stringify(other)).toContain('"text":"text-1"');
    expect(Object.values(other.stories)[0]!.frames[0]!.item).toBe(`${item}-x`);
    expect(mapIds(other, (id) => id.replace(/-x$/, ''))).toEqual(folio);
  });
});
