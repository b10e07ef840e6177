import { beforeAll, describe, expect, test } from '@jest/globals';
import { pagesOf, paragraphsOf, printedNumber } from '@elastic-folio/core';
import { Composer, loadFonts } from '@elastic-folio/core/compose';
import type { Composition } from '@elastic-folio/core/compose';
import { shippedFontSource } from '@elastic-folio/core/node';
import { lightAndDark } from '../src/almanac/sunAndMoon.ts';
import { handbook } from '../src/handbook/handbook.ts';
import { parseProse } from '../src/handbook/parseProse.ts';
import type { Sample } from '../src/index.ts';

let book: Sample;
let composition: Composition;
beforeAll(async () => {
  book = await handbook();
  composition = new Composer(await loadFonts(book.folio.head, [await shippedFontSource()])).compose(book.folio);
});
/** The text of a paragraph’s first line, and the printed number of the page it stands on. */
function placeOf(id: string): { text: string; page: string } {
  for (const place of pagesOf(book.folio))
    for (const item of Object.values(place.spread.items)) {
      const frame = composition.frames.get(item.id);
      const line = frame?.lines.find((l) => l.paragraph === id && l.first);
      if (!line) continue;
      const page = pagesOf(book.folio).find(
        (p) => item.transform[4] >= p.page.box.x && item.transform[4] < p.page.box.x + p.page.box.width && p.spread === place.spread,
      )!;
      return { text: line.runs.map((r) => r.text).join(' '), page: printedNumber(page) };
    }
  throw new Error(id);
}
const shown = (id: string): string =>
  [...composition.frames.values()]
    .flatMap((f) => f.lines.filter((l) => l.paragraph === id).map((l) => l.runs.map((r) => r.text).join('')))
    .join(' ');

describe('the handbook', () => {
  test('has eighty pages and more, all of them with text; parts, chapters, figures and tables are counted through', () => {
    expect(pagesOf(book.folio).length).toBeGreaterThanOrEqual(80);
    for (const f of book.folio.stories['handbook-text']!.frames)
      expect([f.item, composition.frames.get(f.item)!.lines.length > 0]).toEqual([f.item, true]);
    const numbered = (style: string): string[] =>
      [...paragraphsOf(book.folio.stories['handbook-text']!)].filter((p) => p.style === style).map((p) => placeOf(p.id).text);
    numbered('chapter').forEach((text, i) => expect(text).toMatch(new RegExp(`^${i + 1} `)));
    numbered('figureCaption').forEach((text, i) => expect(text).toMatch(new RegExp(`^Figure ${i + 1} `)));
    numbered('tableCaption').forEach((text, i) => expect(text).toMatch(new RegExp(`^Table ${i + 1} `)));
    expect(numbered('part').map((t) => t.split(' ').slice(0, 2).join(' '))).toEqual(['Part I', 'Part II', 'Part III', 'Part IV']);
  });

  test('its contents name the page on which each chapter stands', () => {
    const contents = book.folio.stories['contents-text']!;
    let lines = 0;
    for (const p of paragraphsOf(contents))
      for (const node of p.content)
        if (node.type === 'field' && node.field === 'reference') {
          expect(shown(p.id).trim().endsWith(placeOf(node.target!).page)).toBe(true);
          lines++;
        }
    expect(lines).toBeGreaterThan(25);
  });

  test('a reference in the text shows the number of what it leads to', () => {
    const [words] = [...paragraphsOf(book.folio.stories['handbook-text']!)].filter((p) =>
      p.content.some((n) => n.type === 'field' && n.target === 'fig-adaptation'),
    );
    // A divided word is whole again when it is read; no line ends at the space between word and number.
    expect(shown(words!.id).replace(/\u00AD /g, '')).toContain(
      placeOf('fig-adaptation').text.slice(0, 'Figure 3'.length).replace(' ', '\u00A0'),
    );
  });

  test('a caption stands on the page of its picture, and a table begins on the page of its caption', () => {
    const pageOf = new Map<string, string>();
    for (const frame of composition.frames.values())
      for (const line of frame.lines) if (!pageOf.has(line.paragraph)) pageOf.set(line.paragraph, frame.item);
    const { blocks, order } = book.folio.stories['handbook-text']!;
    order.forEach((id, i) => {
      const block = blocks[id]!;
      if (block.kind !== 'paragraph') return;
      const next = blocks[order[i + 1] ?? ''];
      if (block.style === 'figure') expect([id, pageOf.get(order[i + 1]!)]).toEqual([id, pageOf.get(id)]);
      if (block.style === 'tableCaption' && next?.kind === 'table')
        expect([id, pageOf.get(`${next.id}-2-1-text`)]).toEqual([id, pageOf.get(id)]);
    });
  });
});

describe('prose in Markdown', () => {
  const names = { id: (prefix: string) => `${prefix}-n` };

  test('gives blocks with their styles; notes and references keep their places', () => {
    const { blocks, entries, figures } = parseProse(
      'A **bold** word.^[A *quiet* note.] See {n:fig-moon}.\n\n![A moon.](moon "The moon.")\n\n1. First\n2. Second\n\n- Point\n\n## Head {#head}\n\nTable: Some. {#tab}\n\n| a | b |\n|---|---|\n| c | d |\n',
      names,
    );
    expect(blocks.map((b) => ('table' in b ? 'table' : b.style))).toEqual([
      'opening',
      'figure',
      'figureCaption',
      'step',
      'step',
      'bullet',
      'chapter',
      'tableCaption',
      'table',
      'afterTable',
    ]);
    const [first] = blocks;
    expect('text' in first! && first.text).toMatchObject([
      'A ',
      { text: 'bold', style: 'strong' },
      ' word.',
      { note: expect.anything() },
      ' See ',
      { field: 'label', target: 'fig-moon' },
      '.',
    ]);
    expect(entries.map((e) => [e.kind, e.id])).toEqual([
      ['figure', 'fig-moon'],
      ['chapter', 'head'],
      ['table', 'tab'],
    ]);
    expect(figures).toEqual([{ key: 'moon', alt: 'A moon.' }]);
  });

  test('a list begins its numbers anew', () => {
    const { blocks } = parseProse('1. a\n2. b\n\ntext\n\n1. c\n', names);
    const restarts = blocks.flatMap((b) => ('text' in b && b.style === 'step' ? [b.overrides?.list?.restart] : []));
    expect(restarts).toEqual([1, undefined, 1]);
  });
});

describe('the table of light and dark', () => {
  const minutes = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));

  test('days grow by nearly four minutes each around the equinox at 51 degrees, and day and night are then equal (facts of the trade)', () => {
    const rows = lightAndDark().map(([day, up, down]) => ({ day: day!, long: minutes(down!) - minutes(up!) }));
    const at = rows.findIndex((r) => r.day === '19 March');
    // The sun’s upper edge and refraction make the day some ten minutes longer than the night.
    expect(Math.abs(rows[at]!.long - 725)).toBeLessThan(8);
    expect((rows[at + 1]!.long - rows[at]!.long) / 3).toBeCloseTo(3.9, 0);
    rows.slice(1).forEach((r, i) => expect(r.long).toBeGreaterThan(rows[i]!.long));
  });

  test('it stops getting dark when the sun no longer goes 18 degrees below the horizon: late in May at 51 degrees', () => {
    const never = lightAndDark()
      .filter((r) => r[3] === 'not at all')
      .map((r) => r[0]!);
    expect(never.length).toBeGreaterThan(0);
    for (const day of never) expect(Number.parseInt(day)).toBeGreaterThan(20);
    expect(never.every((d) => d.endsWith('May'))).toBe(true);
  });

  test('the moon ages by three days from row to row, and starts anew after twenty-nine and a half', () => {
    const ages = lightAndDark().map((r) => Number(r[4]));
    ages.slice(1).forEach((age, i) => expect([3, 3 - 29, 3 - 30]).toContain(age - ages[i]!));
  });
});
