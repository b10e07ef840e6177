import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyEdit, Structure } from '../src/index.ts';
import { orderSpread } from '../src/edit/orderSpread.ts';
import { readingItems } from '../src/structure/readingOrder.ts';
import { sample } from './support/samples.ts';

type Entries = [spread: string, item: string][];
const head = (...strands: Entries[]) => ({
  spreadOrder: ['s1', 's2', 's3'],
  structure: Structure.parse({
    strands: strands.map((entries, i) => ({ id: `t${i}`, name: `T${i}`, entries: entries.map(([spread, item]) => ({ spread, item })) })),
  }),
});
const entries = (h: ReturnType<typeof head>): string[] => h.structure.strands.map((s) => s.entries.map((e) => e.item).join(' '));

test('a spread’s order takes the place that it had in its strand', () => {
  const h = head([
    ['s1', 'a'],
    ['s2', 'b'],
    ['s2', 'c'],
    ['s3', 'd'],
  ]);
  orderSpread(h, 's2', ['c', 'x', 'b']);
  expect(entries(h)).toEqual(['a c x b d']);
});
test('one that no strand names joins that of the spread before it', () => {
  const h = head([['s1', 'a']], [['s3', 'd']]);
  orderSpread(h, 's2', ['b', 'c']);
  expect(entries(h)).toEqual(['a b c', 'd']);
});
test('where there is no strand at all, one is made', () => {
  const h = head();
  orderSpread(h, 's2', ['b', 'c']);
  expect(entries(h)).toEqual(['b c']);
});
test('an order that stood in two strands stands in the first of them', () => {
  const h = head(
    [
      ['s1', 'a'],
      ['s2', 'b'],
    ],
    [
      ['s2', 'c'],
      ['s3', 'd'],
    ],
  );
  orderSpread(h, 's2', ['c', 'b']);
  expect(entries(h)).toEqual(['a c b', 'd']);
});

test('whatever order is fixed is the order in which the spread is read, and no other spread is touched', async () => {
  const { folio } = await sample('marrowby-almanac');
  const items = readingItems(folio, folio.spreads['s2']!).map((i) => i.id);
  const own = items.filter((id) => folio.spreads['s2']!.items[id] && !id.includes('/'));
  const others = folio.head.spreadOrder.filter((s) => s !== 's2');
  const before = others.map((s) => readingItems(folio, folio.spreads[s]!).map((i) => i.id));
  fc.assert(
    fc.property(fc.shuffledSubarray(own, { minLength: own.length }), (order) => {
      const next = applyEdit(folio, { kind: 'path.order', args: { spread: 's2', order } }).folio;
      expect(
        readingItems(next, next.spreads['s2']!)
          .map((i) => i.id)
          .filter((id) => own.includes(id)),
      ).toEqual(order);
      expect(others.map((s) => readingItems(next, next.spreads[s]!).map((i) => i.id))).toEqual(before);
    }),
    { numRuns: 12 },
  );
});

test('many roles are set at one time, and taken back at one time', async () => {
  const { folio } = await sample('marrowby-almanac');
  const role = { element: 'h4' as const, startsSection: true, leaveOut: false };
  const { folio: next, inverse } = applyEdit(folio, {
    kind: 'styles.roles',
    args: { paragraph: { head: role, title: null }, character: { strong: null } },
  });
  expect(next.head.paragraphStyles['head']!.role).toEqual(role);
  expect(next.head.paragraphStyles['title']!.role).toBeUndefined();
  expect(next.head.characterStyles['strong']!.role).toBeUndefined();
  expect(inverse.length).toBeGreaterThan(0);
  expect(() => applyEdit(folio, { kind: 'styles.roles', args: { paragraph: { none: role }, character: {} } })).toThrow(
    /not in the document/,
  );
});
