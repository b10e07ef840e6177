import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyEdit, layOf } from '../src/index.ts';
import type { Folio, PageLay } from '../src/index.ts';
import { incoherences } from '../src/folio/coherence.ts';
import { pagesOf } from '../src/folio/traverse.ts';
import { readFlat } from './odf/support/flatFile.ts';

const document = async (pages: number): Promise<Folio> =>
  (
    await readFlat({
      pages: Array.from(
        { length: pages },
        (_, i) =>
          `<draw:page draw:name="n${i}" draw:master-page-name="M"><draw:g><draw:rect svg:x="${i}cm" svg:y="1cm" svg:width="2cm" svg:height="1cm"/><draw:frame svg:x="3cm" svg:y="4cm" svg:width="5cm" svg:height="1cm"><draw:text-box><text:p>${i}</text:p></draw:text-box></draw:frame></draw:g></draw:page>`,
      ).join(''),
    })
  ).folio;
const laid = (folio: Folio, lay: PageLay): Folio => applyEdit(folio, { kind: 'pages.lay', args: { lay } }).folio;
const counts = (folio: Folio): number[] => folio.head.spreadOrder.map((id) => folio.spreads[id]!.pages.length);

describe('how pages lie', () => {
  test.each<[PageLay, number, number[]]>([
    ['single', 4, [1, 1, 1, 1]],
    ['pairs', 4, [2, 2]],
    ['pairs', 5, [2, 2, 1]],
    ['coverThenPairs', 5, [1, 2, 2]],
    ['coverThenPairs', 4, [1, 2, 1]],
    ['pairs', 1, [1]],
  ])('%s, %i pages', async (lay, pages, wanted) => {
    const folio = laid(await document(pages), lay);
    expect(counts(folio)).toEqual(wanted);
    expect(layOf(folio)).toBe(pages === 1 ? 'single' : lay);
    expect(incoherences(folio)).toEqual([]);
  });

  test('pages keep their order, ids and items through any row of changes; going back brings every item to its place', async () => {
    const folio = await document(5);
    const places = (f: Folio): Record<string, string> =>
      Object.fromEntries(
        pagesOf(f).flatMap(({ page, spread }) =>
          Object.values(f.spreads[spread.id]!.items)
            .filter((i) => i.kind !== 'group' && i.transform[4] >= page.box.x && i.transform[4] < page.box.x + page.box.width)
            .map((i) => [i.id, [i.transform[4] - page.box.x, i.transform[5]].map((n) => n.toFixed(4)).join(' ')]),
        ),
      );
    const lays = fc.array(fc.constantFrom<PageLay>('single', 'pairs', 'coverThenPairs'), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(lays, (row) => {
        const after = row.reduce(laid, folio);
        expect(pagesOf(after).map((p) => p.page.id)).toEqual(pagesOf(folio).map((p) => p.page.id));
        expect(places(after)).toEqual(places(folio));
        for (const story of Object.values(after.stories))
          for (const f of story.frames) expect(after.spreads[f.spread]!.items[f.item]).toBeDefined();
        expect(laid(after, 'single').head.facingPages).toBe(false);
      }),
      { numRuns: 25 },
    );
  });

  test('pages that lie in a way of their own are told apart from those that can be chosen', async () => {
    const folio = laid(await document(6), 'pairs');
    const [first, second] = folio.head.spreadOrder;
    // Three pages on the first spread: none of the ways here.
    const three = structuredClone(folio);
    three.spreads[first!]!.pages.push({ ...three.spreads[second!]!.pages.shift()!, box: { x: 1200, y: 0, width: 566, height: 283 } });
    expect(layOf(three)).toBeNull();
    expect(counts(laid(three, 'single'))).toEqual([1, 1, 1, 1, 1, 1]);
  });
});
