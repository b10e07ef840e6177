import { beforeAll, describe, expect, test } from '@jest/globals';
import { produce } from 'immer';
import { Folio } from '../src/index.ts';
import { findingsOf } from '../src/check/index.ts';
import { Composer, FontFace, loadFonts } from '../src/compose/index.ts';
import type { Composition, FontSet, FontSource } from '../src/compose/index.ts';
import { shippedFontSource } from '../src/ports/node.ts';
import { fontsOf } from './support/samples.ts';
import { tinyFolio } from './support/tinyFolio.ts';

const WORDS = 'The dome turns slowly in frost and the wheels below it speak up one after another. ';
const BOOK = { composer: 'totalFit', align: 'justify', hyphenation: { before: 2, after: 2, inARow: 2, capitals: true } };
let fonts: FontSet;
beforeAll(async () => {
  fonts = await fontsOf(tinyFolio(['x']));
});
const compose = (folio: Folio): Composition => new Composer(fonts).compose(folio);
const codes = (folio: Folio): [string, number | undefined, string | undefined][] =>
  findingsOf(folio, compose(folio), fonts)
    .filter((f) => f.code !== 'heading.none' && f.code !== 'text.overflow')
    .map((f) => [f.code, f.page, f.subject]);
/** Characters that are set, and those that are said to be left over: together the whole text. */
function account(folio: Folio): { set: number; over: number } {
  const composition = compose(folio);
  const set = [...composition.frames.values()].flatMap((f) => f.lines).reduce((n, l) => n + l.end - l.start, 0);
  return { set, over: composition.stories.get('t')!.overflow?.characters ?? 0 };
}

describe('texts that are out of all proportion', () => {
  test.each([
    ['one word of 100,000 letters', 'a'.repeat(100_000), BOOK],
    ['one word of 100,000 letters, first fit', 'ab'.repeat(50_000), {}],
    ['a paragraph of 100,000 characters', WORDS.repeat(1200), BOOK],
    ['30,000 soft hyphens', 'a\u00AD'.repeat(30_000), BOOK],
    ['20,000 soft returns', 'a\n'.repeat(20_000), BOOK],
  ])('%s is set as far as its frame goes, and the rest is counted', (_, text, paragraph) => {
    const { set, over } = account(tinyFolio([text], { width: 300, height: 700, paragraph }));
    expect(set).toBeGreaterThan(50);
    // Spaces at the ends of lines are neither set nor left over.
    expect(text.length - set - over).toBeGreaterThanOrEqual(0);
    expect(text.length - set - over).toBeLessThan(100);
  });

  test('a long paragraph that is broken in stretches has lines as even as a short one: the joins do not show', () => {
    const folio = tinyFolio([WORDS.repeat(400)], { width: 200, height: 30_000, paragraph: BOOK });
    const { lines } = compose(folio).frames.get('f1')!;
    expect(lines.length).toBeGreaterThan(600);
    const gaps = lines.slice(0, -1).map((l) => Math.max(...l.runs.map((r) => r.wordSpace)));
    expect(Math.max(...gaps)).toBeLessThan(4);
    for (let i = 1; i < lines.length; i++) expect(lines[i]!.start).toBeGreaterThanOrEqual(lines[i - 1]!.end);
  });

  test('everything that must stay together does so where it can, and is set where it cannot', () => {
    const keeps = { keepWithNext: 9, keepLines: true, widows: 20, orphans: 20 };
    const folio = tinyFolio(
      Array.from({ length: 30 }, () => WORDS.repeat(3)),
      { width: 300, height: 200, frames: 3, paragraph: keeps },
    );
    const { set, over } = account(folio);
    expect(set).toBeGreaterThan(100);
    expect(set + over).toBeGreaterThan(30 * 3 * WORDS.length - 500);
  });
});

describe('parts that cannot work', () => {
  test('frames without room are found with their page, and the text goes on in the next', () => {
    for (const change of [
      { size: { width: 0, height: 100 } },
      { size: { width: 100, height: 0 } },
      { inset: [0, 150, 0, 150] },
      { columns: 40, gutter: 12 },
    ]) {
      const folio = produce(tinyFolio([WORDS], { frames: 2 }), (d) => void Object.assign(d.spreads['s']!.items['f1']!, change));
      expect(codes(folio)).toEqual([['frame.noRoom', 1, 'f1']]);
      expect(compose(folio).frames.get('f2')!.lines.length).toBeGreaterThan(0);
    }
  });

  test('a frame of negative size is no document', () => {
    expect(
      Folio.safeParse(
        produce(tinyFolio(['x']), (d) => void Object.assign(d.spreads['s']!.items['f1']!, { size: { width: -5, height: 10 } })),
      ).success,
    ).toBe(false);
  });

  test('a chain that comes back to a frame is found, and ends', () => {
    const folio = produce(
      tinyFolio([WORDS.repeat(9)], { frames: 2, height: 30 }),
      (d) => void d.stories['t']!.frames.push({ spread: 's', item: 'f1' }),
    );
    expect(codes(folio)).toEqual([['chain.loop', 1, 'f1']]);
  });

  test('styles that are based on themselves, at once or in a ring, are found and still give something', () => {
    const folio = produce(tinyFolio([WORDS]), (d) => {
      d.head.paragraphStyles['p']!.basedOn = 'q';
      d.head.paragraphStyles['q'] = { ...d.head.paragraphStyles['p']!, id: 'q', name: 'Q', basedOn: 'p' };
      d.head.characterStyles['c'] = { id: 'c', name: 'C', basedOn: 'c', character: {} };
    });
    expect(codes(folio).map(([code, , subject]) => [code, subject])).toEqual([
      ['style.loop', 'p'],
      ['style.loop', 'q'],
      ['style.loop', 'c'],
    ]);
    expect(compose(folio).frames.get('f1')!.lines.length).toBeGreaterThan(0);
  });

  test('a table wider than its column is found by how much', () => {
    const folio = produce(tinyFolio([WORDS], { width: 200 }), (d) => {
      d.stories['t']!.blocks['tb'] = {
        kind: 'table',
        id: 'tb',
        columns: [
          { width: 150, unit: 'pt' },
          { width: 90, unit: 'pt' },
        ],
        rows: [{ height: 10, exact: false }],
        headerRows: 0,
        footerRows: 0,
        cells: {},
      };
      d.stories['t']!.order.push('tb');
    });
    expect(codes(folio)).toEqual([['table.tooWide', 1, 'tb']]);
    expect(findingsOf(folio, compose(folio), fonts).find((f) => f.code === 'table.tooWide')!.says).toContain('40 pt');
  });
});

describe('fonts that lie', () => {
  /** A document’s font file in place of Work Sans, damaged. */
  async function withFont(damage: (bytes: Uint8Array) => Uint8Array) {
    const shipped = await shippedFontSource();
    const entry = shipped.list().find((f) => f.family === 'Work Sans' && f.weight === 400 && f.style === 'normal')!;
    const bytes = damage(Uint8Array.from(await shipped.bytes(entry.key)));
    const own: FontSource = { origin: 'document', list: () => [{ ...entry, key: 'own' }], bytes: async () => bytes };
    const folio = tinyFolio([WORDS]);
    const set = await loadFonts(folio.head, [own, shipped]);
    return { set, composition: new Composer(set).compose(folio), folio };
  }
  const table = (bytes: Uint8Array, tag: string): { at: number; offset: number } => {
    const view = new DataView(bytes.buffer);
    for (let i = 0; i < view.getUint16(4); i++)
      if (String.fromCharCode(...bytes.subarray(12 + i * 16, 16 + i * 16)) === tag)
        return { at: 12 + i * 16, offset: view.getUint32(20 + i * 16) };
    throw new Error(tag);
  };

  test.each([
    ['nothing at all', () => new Uint8Array()],
    ['a few bytes', () => new Uint8Array([0, 1, 0, 0, 9])],
    ['a text file', () => new TextEncoder().encode('This is no font. '.repeat(99))],
    ['a file cut in half', (b: Uint8Array) => b.slice(0, b.length >> 1)],
    ['a table that begins outside the file', (b: Uint8Array) => (new DataView(b.buffer).setUint32(table(b, 'glyf').at + 8, 0x7fffffff), b)],
    ['a table longer than the file', (b: Uint8Array) => (new DataView(b.buffer).setUint32(table(b, 'cmap').at + 12, 0xffffffff), b)],
    ['65,535 tables', (b: Uint8Array) => (new DataView(b.buffer).setUint16(4, 65535), b)],
  ] as [string, (b: Uint8Array) => Uint8Array][])(
    '%s: another face stands in, the finding says why, the text is set',
    async (_, damage) => {
      const { set, composition, folio } = await withFont(damage);
      expect(set.broken).toHaveLength(1);
      expect(set.broken[0]!.says).toMatch(/^Work Sans 400 cannot be used: .{10,}/);
      expect(composition.frames.get('f1')!.lines.length).toBeGreaterThan(0);
      expect(findingsOf(folio, composition, set).map((f) => f.code)).toContain('font.broken');
    },
  );

  test('damage anywhere in the outlines or the layout tables never stops the setting', async () => {
    for (const tag of ['glyf', 'GSUB', 'GPOS', 'hmtx', 'loca']) {
      const { composition } = await withFont((bytes) => {
        const { offset } = table(bytes, tag);
        for (let i = 0; i < 400; i++) bytes[offset + 4 + ((i * 37) % 900)] = (i * 73) % 256;
        return bytes;
      });
      const { lines } = composition.frames.get('f1')!;
      expect([tag, lines.length > 0]).toEqual([tag, true]);
      for (const line of lines) expect(Number.isFinite(line.width)).toBe(true);
    }
  });

  test('a face that is asked for outlines it does not have gives none', async () => {
    const face = fonts.faces[0]!;
    expect(face).toBeInstanceOf(FontFace);
    expect(face.outline(65_000)).toBe('');
  });
});
