import { describe, expect, test } from '@jest/globals';
import { Composer, loadFonts } from '../../src/compose/index.ts';
import { handFormatted } from '../../src/check/handFormatted.ts';
import { layOf } from '../../src/edit/facingPages.ts';
import { incoherences } from '../../src/folio/coherence.ts';
import { resolveParagraph, resolveSpan } from '../../src/folio/resolve.ts';
import { overlap } from '../../src/folio/geometry.ts';
import { itemBounds, pageOfItem, pagesOf, paragraphsOf } from '../../src/folio/traverse.ts';
import { applyEdit, applyLogged, Folio } from '../../src/index.ts';
import type { Paragraph } from '../../src/index.ts';
import { shippedFontSource } from '../../src/ports/node.ts';
import { readBytes, readFlat } from './support/flatFile.ts';
import { foundFiles } from './support/foundFiles.ts';
import { linesOf } from './support/linesOf.ts';

const found = (await foundFiles()).filter((f) => f.bytes.length < 900_000);
const withFiles = found.length ? describe : describe.skip;
const compose = async (folio: Folio) => new Composer(await loadFonts(folio.head, [await shippedFontSource()])).compose(folio);

/** The looks of all text, letter by letter, without the names of styles. */
const looksOf = (folio: Folio): string[] =>
  Object.values(folio.stories).flatMap((s) =>
    [...paragraphsOf(s)].map((p) => {
      const look = resolveParagraph(folio.head, p);
      const letters = p.content.map((n) => (n.type === 'span' ? [n.text, resolveSpan(folio.head, look.character, n)] : n.type));
      return JSON.stringify([look.paragraph, letters]);
    }),
  );

/** Items that lie wholly on a page, with the page that each belongs to. */
const onPages = (folio: Folio): Map<string, string> =>
  new Map(
    Object.values(folio.spreads).flatMap((s) =>
      Object.values(s.items).flatMap((i): [string, string][] => {
        const [box, page] = [itemBounds(s.items, i), pageOfItem(s, i)];
        const inside = box.width * box.height > 0 && overlap(box, page.box) > 0.999 * box.width * box.height;
        return inside && i.kind !== 'group' ? [[i.id, page.id]] : [];
      }),
    ),
  );
/** Items of which nothing is seen on any page. */
const unseen = (folio: Folio): string[] =>
  Object.values(folio.spreads).flatMap((s) =>
    Object.values(s.items)
      .filter((i) => i.kind !== 'group' && s.pages.every((p) => overlap(itemBounds(s.items, i), p.box) <= 0))
      .map((i) => i.id),
  );

withFiles('repairs in documents by other people', () => {
  test.each(found.map((f) => [f.name, f] as const))('%s: looks made by hand become styles, and no line moves', async (name, file) => {
    const { folio, done } = await readBytes(name, file.bytes);
    await done();
    const before = handFormatted(folio);
    const { folio: named, inverse } = applyEdit(folio, { kind: 'styles.nameLooks', args: {} });
    expect(handFormatted(named)).toBeNull();
    expect(Folio.parse(named)).toEqual(named);
    expect(incoherences(named)).toEqual([]);
    expect(looksOf(named)).toEqual(looksOf(folio));
    expect(linesOf(await compose(named))).toEqual(linesOf(await compose(folio)));
    const styles = (f: Folio): number => Object.keys(f.head.paragraphStyles).length + Object.keys(f.head.characterStyles).length;
    // A look is named once for each style that it stands on, so there are never more new styles than passages.
    expect(styles(named) - styles(folio)).toBeLessThanOrEqual(before?.passages ?? 0);
    expect(applyLogged(named, inverse)).toEqual(folio);
  });

  test.each(found.map((f) => [f.name, f] as const))(
    '%s: pages lie in pairs, and singly again, with all that stands on them',
    async (name, file) => {
      const { folio, done } = await readBytes(name, file.bytes);
      await done();
      const pages = pagesOf(folio).length;
      for (const lay of ['pairs', 'coverThenPairs'] as const) {
        const { folio: paired } = applyEdit(folio, { kind: 'pages.lay', args: { lay } });
        expect(paired.head.spreadOrder).toHaveLength(Math.ceil((pages + (lay === 'pairs' ? 0 : 1)) / 2));
        expect(pagesOf(paired).map((p) => p.page.id)).toEqual(pagesOf(folio).map((p) => p.page.id));
        expect(incoherences(paired)).toEqual([]);
        expect(linesOf(await compose(paired))).toEqual(linesOf(await compose(folio)));
        const { folio: single } = applyEdit(paired, { kind: 'pages.lay', args: { lay: 'single' } });
        for (const laid of [paired, single]) {
          const now = onPages(laid);
          for (const [item, page] of onPages(folio)) expect([item, now.get(item)]).toEqual([item, page]);
          // What lay beside a page does not come to lie on the other one.
          expect(unseen(laid)).toEqual(expect.arrayContaining(unseen(folio)));
        }
        expect(layOf(single)).toBe('single');
      }
    },
  );
});

const page = (inside: string): string => `<draw:page draw:name="P" draw:master-page-name="M">${inside}</draw:page>`;
const frame = (text: string): string =>
  `<draw:frame svg:x="1cm" svg:y="1cm" svg:width="8cm" svg:height="8cm"><draw:text-box>${text}</draw:text-box></draw:frame>`;
const paragraphs = (folio: Folio): Paragraph[] => Object.values(folio.stories).flatMap((s) => [...paragraphsOf(s)]);
const BOLD =
  '<style:style style:name="T1" style:family="text"><style:text-properties fo:font-weight="bold"/></style:style>' +
  '<style:style style:name="T2" style:family="text"><style:text-properties fo:font-weight="bold" fo:language="de"/></style:style>';

describe('looks made by hand', () => {
  test('a whole paragraph in one look gets a paragraph style, a word a character style; the same look the same style', async () => {
    const text =
      '<text:p><text:span text:style-name="T1">All of it</text:span></text:p>' +
      '<text:p>Only <text:span text:style-name="T1">a word</text:span> and <text:span text:style-name="T2">ein Wort</text:span></text:p>';
    const { folio } = await readFlat({ automatic: BOLD, pages: page(frame(text) + frame(text)) });
    const { folio: named } = applyEdit(folio, { kind: 'styles.nameLooks', args: {} });
    const [a, b, c] = paragraphs(named);
    expect(named.head.paragraphStyles[a!.style]!.name).toMatch(/, bold$/);
    expect(a!.style).toBe(c!.style);
    const spans = b!.content.filter((n) => n.type === 'span');
    expect(spans.map((s) => s.style && named.head.characterStyles[s.style]!.name)).toEqual([undefined, 'Bold', undefined, 'Bold']);
    // A language stays where it is: it is said of the words, it is no look.
    expect(spans[3]!.overrides).toEqual({ language: 'de' });
    expect(Object.keys(named.head.characterStyles)).toHaveLength(1);
  });

  test('styles that look the same become one, with what was based on them', async () => {
    const styles = ['a', 'b'].map(
      (n) => `<style:style style:name="${n}" style:family="paragraph"><style:text-properties fo:font-size="15pt"/></style:style>`,
    );
    const child =
      '<style:style style:name="c" style:family="paragraph" style:parent-style-name="b"><style:text-properties fo:font-weight="bold"/></style:style>';
    const text = ['a', 'b', 'c'].map((n) => `<text:p text:style-name="${n}">${n}</text:p>`).join('');
    const { folio } = await readFlat({ styles: styles.join('') + child, pages: page(frame(text)) });
    const [a, b] = paragraphs(folio);
    const { folio: merged } = applyEdit(folio, { kind: 'styles.merge', args: { keep: a!.style, others: [b!.style] } });
    expect(looksOf(merged)).toEqual(looksOf(folio));
    expect(paragraphs(merged).map((p) => merged.head.paragraphStyles[p.style]!.name)).toEqual(['a', 'a', 'c']);
    expect(Object.keys(merged.head.paragraphStyles)).toHaveLength(2);
    expect(incoherences(merged)).toEqual([]);
  });

  test('keeping the style that was based on the other leaves its look', async () => {
    const styles =
      '<style:style style:name="a" style:family="paragraph"><style:text-properties fo:font-size="15pt"/></style:style><style:style style:name="b" style:family="paragraph" style:parent-style-name="a"/>';
    const { folio } = await readFlat({
      styles,
      pages: page(frame('<text:p text:style-name="a">1</text:p><text:p text:style-name="b">2</text:p>')),
    });
    const [a, b] = paragraphs(folio);
    const { folio: merged } = applyEdit(folio, { kind: 'styles.merge', args: { keep: b!.style, others: [a!.style] } });
    expect(looksOf(merged)).toEqual(looksOf(folio));
    expect(merged.head.paragraphStyles[b!.style]!.basedOn).toBeUndefined();
  });

  test('empty paragraphs between others become space, and the lines stay where they were', async () => {
    const text = '<text:p/><text:p>One</text:p><text:p/><text:p/><text:p>Two</text:p><text:p/>';
    const { folio } = await readFlat({ pages: page(frame(text)) });
    const [story] = Object.keys(folio.stories);
    const { folio: closed } = applyEdit(folio, { kind: 'text.closeUp', args: { story: story! } });
    const filled = (lines: string[]): string[] => lines.filter((l) => Number(l.split(' ')[2]) > 0);
    const [before, after] = [linesOf(await compose(folio)), linesOf(await compose(closed))].map((l) => Object.values(l)[0]!);
    expect(closed.stories[story!]!.order).toHaveLength(4);
    expect(filled(after!)).toEqual(filled(before!));
    expect(Object.values(closed.stories[story!]!.aliases)).toHaveLength(2);
  });
});

describe('pages side by side', () => {
  test('a document in a language from the right opens the other way', async () => {
    const { folio } = await readFlat({ pages: page(frame('<text:p>a</text:p>')) + page(frame('<text:p>b</text:p>')) });
    const arabic = applyEdit(folio, { kind: 'document.metadata', args: { language: 'ar' } }).folio;
    const { folio: paired } = applyEdit(arabic, { kind: 'pages.lay', args: { lay: 'pairs' } });
    const [spread] = Object.values(paired.spreads);
    const [first, second] = spread!.pages;
    expect([first!.box.x, second!.box.x]).toEqual([second!.box.width, 0]);
    expect(spread!.order.map((id) => spread!.items[id]!.transform[4] > second!.box.width)).toEqual([true, false]);
  });

  test('bleed is given to every page', async () => {
    const { folio } = await readFlat({ pages: page('') + page('') });
    const { folio: bled } = applyEdit(folio, { kind: 'pages.bleed', args: { bleed: 9 } });
    expect(pagesOf(bled).map((p) => p.page.bleed)).toEqual([9, 9]);
  });
});
