import { beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { produce } from 'immer';
import {
  applyEdit,
  closedLevels,
  headingsInOrder,
  joinStrand,
  moveStrand,
  outlineText,
  pagesOf,
  pathOf,
  splitStrand,
  wholePath,
} from '../src/index.ts';
import type { Folio, Strand } from '../src/index.ts';
import { Composer } from '../src/compose/index.ts';
import { flowOf } from '../src/structure/flow.ts';
import type { FlowBlock } from '../src/structure/flow.ts';
import { scopeOf } from '../src/write/scope.ts';
import { observeEpub } from '../src/ledger/flow/observeEpub.ts';
import { sharpPictures } from '../src/ports/node.ts';
import { asSample, fontsOf, make, sample } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let folio: Folio;
beforeAll(async () => {
  folio = (await sample('marrowby-almanac')).folio;
});
const strands = (...lists: string[]): Strand[] =>
  lists.map((items, i) => ({ id: `s${i}`, name: `S${i}`, entries: [...items].map((item) => ({ spread: 's', item })) }));
const spelled = (list: readonly Strand[]): string => list.map((s) => s.entries.map((e) => e.item).join('')).join(' ');

describe('strands', () => {
  test('are split, joined, and moved as wholes', () => {
    expect(spelled(splitStrand(strands('abc', 'de'), 'b', 'New'))).toBe('a bc de');
    expect(spelled(splitStrand(strands('abc'), 'a', 'New'))).toBe('abc');
    expect(spelled(joinStrand(strands('a', 'bc', 'd'), 's1'))).toBe('abc d');
    expect(spelled(joinStrand(strands('a', 'b'), 's0'))).toBe('a b');
    expect(spelled(moveStrand(strands('a', 'b', 'c'), 's2', 0))).toBe('c a b');
    expect(spelled(moveStrand(strands('a'), 'none', 0))).toBe('a');
  });
  test('that are split have names of their own, and joining undoes it, wherever it was (property)', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { minLength: 2 }), fc.nat(), (items, n) => {
        const before = strands(items.join(''));
        const at = items[1 + (n % (items.length - 1))]!;
        const split = splitStrand(before, at, 'New');
        expect(new Set(split.map((s) => s.id)).size).toBe(2);
        expect(spelled(joinStrand(split, split[1]!.id))).toBe(spelled(before));
      }),
    );
  });
  test('name everything that is read once the whole path is asked for, and change nothing in its order', () => {
    const whole = wholePath(folio);
    const named = produce(folio, (d) => void (d.head.structure.strands = whole));
    for (const { spread } of pagesOf(folio)) expect(pathOf(named, spread).map((i) => i.id)).toEqual(pathOf(folio, spread).map((i) => i.id));
    const bare = produce(folio, (d) => void (d.head.structure.strands = []));
    expect(wholePath(bare)).toHaveLength(1);
    const all = pagesOf(folio).flatMap((p) => pathOf(bare, p.spread).map((i) => i.id));
    expect(new Set(wholePath(bare)[0]!.entries.map((e) => e.item))).toEqual(new Set(all));
  });
  test('are changed by an edit, which refuses what is not there', () => {
    const [first] = wholePath(folio);
    const next = applyEdit(folio, { kind: 'path.strands', args: { strands: [{ ...first!, name: 'All of it' }] } }).folio;
    expect(next.head.structure.strands.map((s) => s.name)).toEqual(['All of it']);
    expect(() =>
      applyEdit(folio, { kind: 'path.strands', args: { strands: [{ id: 'x', name: 'X', entries: [{ spread: 's2', item: 'none' }] }] } }),
    ).toThrow(/not in the document/);
  });
});

/** What is read, as the first words of paragraphs and the ids of figures. */
const told = async (f: Folio): Promise<string[]> => {
  const composition = new Composer(await fontsOf(f)).compose(f);
  const scope = scopeOf(f, composition, { pages: '', hiddenLayers: 'out' });
  const one = (b: FlowBlock): string[] =>
    b.kind === 'paragraph' ? [b.paragraph.id] : b.kind === 'figure' ? [b.item.id, ...b.captions.map((c) => c.paragraph.id)] : [];
  return flowOf(f, composition, scope).flatMap((s) => s.blocks.flatMap(one));
};

describe('running text', () => {
  test('reads a strand in one go where it is asked to, whatever stands between its pages', async () => {
    // Two articles, each on two spreads, by turns.
    const together = (yes: boolean): Folio =>
      produce(folio, (d) => {
        d.head.structure.strands = [
          {
            id: 'a',
            name: 'A',
            entries: [
              { spread: 's2', item: 'telescope-picture' },
              { spread: 's4', item: Object.keys(d.spreads['s4']!.items).find((i) => d.spreads['s4']!.items[i]!.kind === 'textFrame')! },
            ],
            ...(yes && { together: true }),
          },
        ];
      });
    const [apart, joined] = [await told(together(false)), await told(together(true))];
    expect([...joined].sort()).toEqual([...apart].sort());
    const after = joined[joined.indexOf('telescope-picture') + 1]!;
    expect(apart.indexOf(after)).toBeGreaterThan(apart.indexOf('telescope-picture') + 1);
  });
  test('has captions at the figures to which they are linked, however far they stand', async () => {
    const caption = Object.values(folio.stories).find((s) => s.id === 'moons-caption-text')!.frames[0]!.item;
    const linked = produce(folio, (d) => void (d.head.structure.captions[caption] = 'telescope-picture'));
    const list = await told(linked);
    const at = list.indexOf('telescope-picture');
    expect(list.slice(at, at + 4)).toContain('moons-caption-text-1');
    expect((await told(folio)).indexOf('moons-caption-text-1')).toBeGreaterThan(at + 4);
  });
});

describe('the outline', () => {
  test('lists headings in the order of the path, with their levels', () => {
    const list = headingsInOrder(folio);
    expect(list.map((h) => h.paragraph.id)).toContain('dome-feature-3');
    const swapped = applyEdit(folio, {
      kind: 'path.order',
      args: {
        spread: 's3',
        order: [...pathOf(folio, pagesOf(folio).find((p) => p.spread.id === 's3')!.spread)].reverse().map((i) => i.id),
      },
    }).folio;
    expect(headingsInOrder(swapped)).toHaveLength(list.length);
  });
  test('says other words than a heading where it should, or nothing of it', async () => {
    const text = outlineText(folio.head, 'dome-feature-3', 'Its own');
    expect(text).toBe('Its own');
    const edited = [
      { kind: 'outline.entry', args: { paragraph: 'dome-feature-3', entry: { text: 'Other words', leaveOut: false } } } as const,
      { kind: 'outline.entry', args: { paragraph: 'dome-feature-18', entry: { leaveOut: true } } } as const,
    ].reduce((f, e) => applyEdit(f, e).folio, folio);
    const back = applyEdit(edited, { kind: 'outline.entry', args: { paragraph: 'dome-feature-3', entry: null } }).folio;
    expect(back.head.structure.outline).toEqual({ 'dome-feature-18': { leaveOut: true } });
    const almanac = await sample('marrowby-almanac');
    for (const output of ['epub', 'epub-fixed', 'pdf', 'html', 'article']) {
      const made = await make(almanac, output, { resolution: 36, cover: 'none' }, edited);
      expect([output, made.ledger.filter((e) => e.check === 'contradicted')]).toEqual([output, []]);
      if (output !== 'epub') continue;
      const { outline } = await observeEpub(await made.read('book.epub'), sharpPictures);
      expect(outline.map((o) => o.text)).toContain('Other words');
      expect(outline.map((o) => o.text)).not.toContain('Before you come');
    }
  });
  test('has its levels closed up: none is skipped, and the first is the first (WCAG 2.2, 1.3.1)', () => {
    const levels = (...used: string[]): string[] => {
      const f = produce(tinyFolio(used.map((u) => u)), (d) => {
        used.forEach((element, i) => {
          d.head.paragraphStyles[`st${i}`] = {
            ...d.head.paragraphStyles['p']!,
            id: `st${i}`,
            name: `St ${i}`,
            role: { element: element as 'h1', startsSection: false, leaveOut: false },
          };
          (d.stories['t']!.blocks[`p${i + 1}`] as { style: string }).style = `st${i}`;
        });
      });
      const closed = closedLevels(f);
      return used.map((u, i) => closed[`st${i}`]?.element ?? u);
    };
    expect(levels('h1', 'h2', 'h3')).toEqual(['h1', 'h2', 'h3']);
    expect(levels('h1', 'h4', 'h6')).toEqual(['h1', 'h2', 'h3']);
    expect(levels('h2', 'p', 'h3')).toEqual(['h1', 'p', 'h2']);
  });
});

describe('the language of a passage', () => {
  test('is said of paragraphs, and taken back', async () => {
    const tiny = tinyFolio(['One.', 'Zwei.']);
    const german = applyEdit(tiny, { kind: 'paragraph.language', args: { story: 't', paragraphs: ['p2'], language: 'de' } }).folio;
    const { ledger } = await make(asSample(german), 'html');
    expect(ledger.find((e) => e.subject.id === 'p2' && e.subject.aspect === 'language')).toMatchObject({
      check: 'confirmed',
      evidence: expect.stringContaining('de'),
    });
    const back = applyEdit(german, { kind: 'paragraph.language', args: { story: 't', paragraphs: ['p2'], language: null } }).folio;
    expect(back.stories['t']!.blocks['p2']).toEqual(tiny.stories['t']!.blocks['p2']);
  });
});
