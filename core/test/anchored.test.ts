import { describe, expect, test } from '@jest/globals';
import { Folio } from '../src/index.ts';
import type { Inline } from '../src/index.ts';
import { composedSpread, Composer } from '../src/compose/index.ts';
import type { SetLine } from '../src/compose/index.ts';
import { asSample, fontsOf, make } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const anchor = (item: string, place: 'inline' | 'above' | 'side'): Inline => ({ type: 'anchor', id: `at-${item}`, item, place });
const span = (text: string): Inline => ({ type: 'span', text });
const ink = { type: 'colour', colour: { space: 'grey', value: 0.2 } };
const box = (id: string, width: number, height: number, more: Record<string, unknown> = {}) => ({
  kind: 'textFrame',
  id,
  layer: 'l',
  transform: [1, 0, 0, 1, 0, 0],
  size: { width, height },
  fill: ink,
  ...more,
});
const WORDS = 'The dome turns slowly in frost and the wheels below it speak up one after another. ';

/** A text with an item anchored in its first paragraph, another paragraph after it. */
function withItem(place: 'inline' | 'above' | 'side', item: ReturnType<typeof box>, o: Parameters<typeof tinyFolio>[1] = {}): Folio {
  const folio = tinyFolio([[span('One two '), anchor(item.id, place), span(` three. ${WORDS}`)], WORDS], { width: 200, height: 200, ...o });
  return Folio.parse({ ...folio, stories: { t: { ...folio.stories['t']!, items: { [item.id]: item } } } });
}
async function set(folio: Folio): Promise<{ lines: SetLine[]; spread: ReturnType<typeof composedSpread>; composer: Composer }> {
  const composer = new Composer(await fontsOf(folio));
  const composition = composer.compose(folio);
  return { lines: composition.frames.get('f1')!.lines, spread: composedSpread(folio, composition, folio.spreads['s']!), composer };
}
const at = (item: { transform: readonly number[] }): [number, number] => [item.transform[4]!, item.transform[5]!];

describe('items anchored in text', () => {
  test('in the line: stands on the baseline, takes its width, and lifts the line by what it is higher than the letters', async () => {
    const bare = await set(tinyFolio([[span('One two  three. '), span(WORDS)], WORDS], { width: 200, height: 200 }));
    const { lines, spread } = await set(withItem('inline', box('pic', 30, 20)));
    const [first] = lines;
    const run = first!.runs[0]!;
    const [x, y] = at(spread.items['pic']!);
    // The frame lies at (10, 10); the runs before the item end where it begins.
    expect(x).toBeCloseTo(10 + first!.x + run.x + run.width, 3);
    expect(y).toBeCloseTo(10 + first!.baseline - 20, 3);
    expect(first!.runs[1]!.x).toBeCloseTo(run.x + run.width + 30, 3);
    expect(first!.runs[1]!.joint).toBe('apart');
    expect(first!.baseline - bare.lines[0]!.baseline).toBeCloseTo(20 - first!.ascent, 3);
    expect(lines[1]!.baseline - first!.baseline).toBeCloseTo(12, 3);
  });

  test('an item lower than the letters moves no line', async () => {
    const { lines } = await set(withItem('inline', box('pic', 5, 4)));
    expect(lines[1]!.baseline - lines[0]!.baseline).toBeCloseTo(12, 6);
    expect(lines[0]!.baseline).toBeCloseTo(lines[0]!.ascent, 6);
  });

  test('above: has the line’s room over it to itself, from the column’s edge', async () => {
    const { lines, spread } = await set(
      withItem('above', box('pic', 90, 44, { transform: [1, 0, 0, 1, 6, 0] }), { paragraph: { firstLineIndent: 12 } }),
    );
    const [x, y] = at(spread.items['pic']!);
    expect(x).toBeCloseTo(16, 3);
    expect(y).toBeCloseTo(10, 3);
    expect(lines[0]!.baseline).toBeCloseTo(44 + lines[0]!.ascent, 3);
  });

  test('at the side: takes no room, and stands beside its line wherever that comes to stand', async () => {
    const item = box('pic', 40, 30, { transform: [1, 0, 0, 1, -50, 2] });
    const plain = await set(tinyFolio([[span('One two  three. '), span(WORDS)], WORDS], { width: 200, height: 200 }));
    const { lines, spread } = await set(withItem('side', item));
    expect(lines.map((l) => l.baseline)).toEqual(plain.lines.map((l) => l.baseline));
    expect(at(spread.items['pic']!)).toEqual([-40, 10 + lines[0]!.baseline - lines[0]!.ascent + 2]);
    const lower = await set(withItem('side', item, { paragraph: { spaceBefore: 0 }, character: { leading: 30 } }));
    expect(at(lower.spread.items['pic']!)[1]).toBeCloseTo(12 + lower.lines[0]!.baseline - lower.lines[0]!.ascent, 6);
  });

  test('lies right above its frame, and is turned with it', async () => {
    const folio = withItem('inline', box('pic', 30, 20));
    folio.spreads['s']!.items['f1']!.transform = [0, 1, -1, 0, 300, 50];
    const { spread, lines } = await set(folio);
    expect(spread.order).toEqual(['f1', 'pic']);
    expect(spread.items['pic']!.transform.slice(0, 4)).toEqual([0, 1, -1, 0]);
    const along = lines[0]!.runs[0]!.width;
    expect(at(spread.items['pic']!)[0]).toBeCloseTo(300 - (lines[0]!.baseline - 20), 3);
    expect(at(spread.items['pic']!)[1]).toBeCloseTo(50 + along, 3);
  });

  test('a group keeps its members in their places to one another', async () => {
    const group = { kind: 'group', id: 'g', layer: 'l', transform: [1, 0, 0, 1, 0, 0], members: ['a', 'b'] };
    const folio = withItem('inline', group as never);
    folio.stories['t']!.items['a'] = withItem('inline', box('a', 10, 10)).stories['t']!.items['a']!;
    folio.stories['t']!.items['b'] = { ...(folio.stories['t']!.items['a'] as object), id: 'b', transform: [1, 0, 0, 1, 20, 5] } as never;
    const { spread, lines } = await set(folio);
    expect(lines[0]!.runs[1]!.x - lines[0]!.runs[0]!.width).toBeCloseTo(30, 3);
    const [a, b] = [at(spread.items['a']!), at(spread.items['b']!)];
    expect([b[0] - a[0], b[1] - a[1]]).toEqual([20, 5]);
  });

  test('a text in an anchored frame is set where the frame stands, and set again only when it must be', async () => {
    const folio = withItem('side', box('aside', 60, 40, { transform: [1, 0, 0, 1, -70, 0] }));
    const two = Folio.parse({
      ...folio,
      head: { ...folio.head, storyOrder: ['t', 'n'] },
      stories: {
        ...folio.stories,
        n: {
          id: 'n',
          frames: [{ spread: 't', item: 'aside' }],
          order: ['n1'],
          blocks: { n1: { kind: 'paragraph', id: 'n1', style: 'p', content: [span('A side note.')] } },
        },
      },
    });
    const composer = new Composer(await fontsOf(two));
    const composition = composer.compose(two);
    expect(composition.frames.get('aside')!.lines.map((l) => l.runs.map((r) => r.text).join(''))).toEqual(['A side note.']);
    expect(composition.stories.get('n')!.overflow).toBeNull();
    const moved = structuredClone(two);
    moved.stories['t']!.blocks['p2'] = { ...(moved.stories['t']!.blocks['p2'] as object), content: [span('Other.')] } as never;
    const again = composer.compose({ ...two, stories: { ...two.stories, t: moved.stories['t']! } });
    expect(again.frames.get('aside')).toBe(composition.frames.get('aside'));
    for (const output of ['html', 'pdf']) {
      const made = await make(asSample(two), output);
      expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
      expect(made.ledger.filter((e) => e.outcome !== 'kept')).toEqual([]);
      const order = made.ledger.filter((e) => e.subject.kind === 'paragraph' && e.subject.aspect === 'text').map((e) => e.check);
      expect(order).toEqual(['confirmed', 'confirmed', 'confirmed']);
    }
  });

  test('an item whose line does not fit is said not to be shown; one that is not there takes no room', async () => {
    const late = withItem('inline', box('pic', 30, 20), { height: 10 });
    const made = await make(asSample(late), 'pdf');
    const found = made.ledger.filter((e) => e.subject.kind === 'anchor' || e.subject.id === 'pic');
    expect(found.map((e) => [e.outcome, e.code])).toEqual(found.map(() => ['dropped', 'anchor.unplaced']));
    expect(found.length).toBe(3);
    const folio = withItem('inline', box('pic', 30, 20));
    folio.stories['t']!.items = {};
    const { lines, spread } = await set(folio);
    expect(lines[0]!.rise ?? 0).toBe(0);
    expect(spread.items['pic']).toBeUndefined();
  });

  test('an item wider than the column stands alone on a line and the rest goes on', async () => {
    const { lines } = await set(withItem('inline', box('pic', 400, 20)));
    expect(lines.length).toBeGreaterThan(3);
    expect(lines.map((l) => l.runs.map((r) => r.text).join('')).join(' ')).toContain('three.');
  });
});
