import { describe, expect, test } from '@jest/globals';
import { Readable } from 'node:stream';
import ExcelJS from 'exceljs';
import { po } from 'gettext-parser';
import { xliff2js } from 'xliff';
import { ChoiceOfTexts, goesOut, outboundOf, readable, wordsOf } from '../../src/language/index.ts';
import type { CutUnit } from '../../src/language/index.ts';
import { readByPython, PYTHON_DOCX } from '../support/pythonDocx.ts';
import { sample } from '../support/samples.ts';
import { textsOf } from './support/exchanged.ts';
import { readByToolkit, TOOLKIT } from './support/toolkit.ts';

const DE = { target: 'de', pretranslation: 'none' };
const text = (s: string): string => s.replace(/\s+/g, ' ').trim();

/** What should be in the files: each segment with its words, and those of its translation. */
async function segments() {
  const s = await sample('marrowby-almanac');
  const { units } = goesOut(s.folio, ChoiceOfTexts.parse({}));
  const has = outboundOf(units, s.folio.editions['de'], null, 'none');
  const said = (u: CutUnit) => u.segments.map((g) => ({ id: g.id, unit: u, source: g.source, target: has.get(g.id)?.target ?? null }));
  return { s, all: units.flatMap(said) };
}

describe('other libraries read the files', () => {
  (TOOLKIT ? test : test.skip)('XLIFF 1.2, TMX and PO by translate-toolkit', async () => {
    const { s, all } = await segments();
    const xliff = await readByToolkit('a.xlf', (await textsOf(s, 'xliff-1.2', DE)).bytes);
    expect([xliff.source, xliff.target, xliff.units.length]).toEqual(['en', 'de', all.length]);
    for (const [i, seen] of xliff.units.entries()) {
      expect(seen.id.endsWith(all[i]!.id)).toBe(true);
      expect(text(seen.source)).toBe(text(wordsOf(all[i]!.source.filter((p) => p.type !== 'wrap'))));
      expect(text(seen.target)).toBe(text(wordsOf((all[i]!.target ?? []).filter((p) => p.type !== 'wrap'))));
    }
    const page = xliff.units.find((u) => u.id.endsWith('dome-feature-1'))!;
    expect(page.notes).toContain('page 3; style First paragraph');
    const tmx = await readByToolkit('a.tmx', (await textsOf(s, 'tmx', DE)).bytes);
    const done = all.filter((g) => g.target);
    expect(tmx.units.map((u) => text(u.source))).toEqual(done.map((g) => text(wordsOf(g.source.filter((p) => p.type !== 'wrap')))));
    const catalogue = await readByToolkit('a.po', (await textsOf(s, 'po', DE)).bytes);
    expect(catalogue.units.map((u) => [u.id, u.source, u.target])).toEqual(
      all.map((g) => [g.id, readable(g.source), g.target ? readable(g.target) : '']),
    );
  });

  test('XLIFF 2.1 by the package xliff', async () => {
    const { s, all } = await segments();
    const { bytes } = await textsOf(s, 'xliff-2.1', DE);
    const read = await xliff2js(new TextDecoder().decode(bytes));
    expect([read.sourceLanguage, read.targetLanguage]).toEqual(['en', 'de']);
    const units = Object.values(read.resources)[0] as Record<string, { source: unknown; target?: unknown }>;
    const flat = (value: unknown): string =>
      typeof value === 'string'
        ? value
        : Array.isArray(value)
          ? value.map(flat).join('')
          : Object.values((value ?? {}) as Record<string, { contents?: unknown }>)
              .map((v) => flat(v?.contents ?? ''))
              .join('');
    const whole = all.filter((g) => g.unit.segments.length === 1);
    expect(Object.keys(units).length).toBe(new Set(all.map((g) => g.unit.id)).size);
    for (const g of whole.filter((g) => g.unit.codes.length === 0))
      expect([g.id, text(flat(units[g.unit.id]!.source))]).toEqual([g.id, text(wordsOf(g.source.filter((p) => p.type !== 'wrap')))]);
  });

  test('the spreadsheet by exceljs: words, locked columns, no formulas', async () => {
    const { s, all } = await segments();
    const book = new ExcelJS.Workbook();
    await book.xlsx.read(Readable.from([Buffer.from((await textsOf(s, 'xlsx', DE)).bytes)]));
    const sheet = book.worksheets[0]!;
    expect(sheet.rowCount).toBe(all.length + 1);
    for (const [i, g] of all.entries()) {
      const row = sheet.getRow(i + 2);
      expect([row.getCell(1).value, row.getCell(2).value, row.getCell(3).value ?? '']).toEqual([
        g.id,
        readable(g.source),
        g.target ? readable(g.target) : '',
      ]);
    }
    const row = sheet.getRow(2);
    expect([1, 2, 3].map((n) => row.getCell(n).protection?.locked ?? true)).toEqual([true, true, false]);
    expect((sheet as unknown as { sheetProtection: { sheet: boolean } | null }).sheetProtection?.sheet).toBe(true);
  });

  test('PO by gettext-parser says what the manual asks for', async () => {
    const { s } = await segments();
    const read = po.parse(Buffer.from((await textsOf(s, 'po', DE)).bytes));
    expect(read.charset).toBe('utf-8');
    expect(read.headers['Language']).toBe('de');
    expect(Object.keys(read.translations)).toContain('dome-feature-1');
  });

  (PYTHON_DOCX ? test : test.skip)('the two columns by python-docx', async () => {
    const { s, all } = await segments();
    const { tables } = await readByPython((await textsOf(s, 'docx-columns', DE)).bytes);
    expect(tables[0]!.rows).toBe(all.length + 1);
    expect(tables[0]!.cells.slice(1).map((c) => [c[0]!.split('\n')[0], c[1], c[2]])).toEqual(
      all.map((g) => [g.id, readable(g.source).replaceAll('{wrap}', '\n'), g.target ? readable(g.target).replaceAll('{wrap}', '\n') : '']),
    );
  });
});
