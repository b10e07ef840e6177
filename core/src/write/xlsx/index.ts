import { collectBytes } from '../assets/outputFile.ts';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import { TOOL } from '../exchange/exchangeFormat.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';
import { COLUMNS, sheetRows } from '../exchange/sheetRows.ts';
import { OFFICE, OfficePackage } from '../ooxml/officePackage.ts';
import { el, words, xmlFile } from '../assets/xml.ts';
import type { Xml } from '../assets/xml.ts';

const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const CONTENT = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
/** Widths of columns in letters. */
const WIDTHS: Record<(typeof COLUMNS)[number], number> = { id: 16, source: 60, target: 60, state: 12, where: 28, comments: 30 };
/** Cell formats of the style sheet below: locked and small, locked, free, heading. */
const STYLE = { id: 1, locked: 2, free: 3, head: 4 };

/** A workbook of SpreadsheetML (ISO/IEC 29500-1, part 18): one sheet of texts, one that says what it belongs to. */
const xlsx: ExchangeFormat = {
  id: 'xlsx',
  label: 'Spreadsheet',
  about: 'For one person with a spreadsheet program: the target column is free, all else is locked (XLSX).',
  extension: '.xlsx',
  mediaType: `${CONTENT}.sheet`,
  async write(job) {
    const pack = new OfficePackage();
    const rows = [...sheetRows(job)];
    const texts = pack.add(
      'xl/worksheets/sheet1.xml',
      `${CONTENT}.worksheet+xml`,
      xmlFile(textsSheet(rows.map((row) => COLUMNS.map((c) => row[c])))),
    );
    const facts = [
      ['document', job.document.id],
      ['title', job.document.title],
      ['source', job.source],
      ['target', job.target],
      ['made by', TOOL.name],
      ['made at', job.clock().toISOString()],
    ];
    const about = pack.add('xl/worksheets/sheet2.xml', `${CONTENT}.worksheet+xml`, xmlFile(aboutSheet(facts)));
    const styles = pack.add('xl/styles.xml', `${CONTENT}.styles+xml`, xmlFile(styleSheet()));
    const book = pack.add('xl/workbook.xml', `${CONTENT}.sheet.main+xml`);
    const sheets = [
      ['Texts', texts],
      ['About', about],
    ] as const;
    book.content = xmlFile(
      el(
        'workbook',
        { xmlns: MAIN, 'xmlns:r': OFFICE },
        el(
          'sheets',
          {},
          sheets.map(([name, part], i) => el('sheet', { name, sheetId: i + 1, 'r:id': book.relate(`${OFFICE}/worksheet`, part) })),
        ),
      ),
    );
    book.relate(`${OFFICE}/styles`, styles);
    pack.relate(`${OFFICE}/officeDocument`, book);
    return collectBytes(pack.bytes());
  },
};

const column = (at: number): string => String.fromCharCode(65 + at);

/** A cell of words: never a formula, whatever they begin with (18.3.1.4: the type `inlineStr`). */
const cell = (row: number, at: number, text: string, style: number): Xml =>
  el('c', { r: `${column(at)}${row}`, t: 'inlineStr', s: style }, el('is', {}, el('t', { 'xml:space': 'preserve' }, words(text))));

function textsSheet(rows: readonly string[][]): Xml {
  const head = el(
    'row',
    { r: 1 },
    COLUMNS.map((name, i) => cell(1, i, name, STYLE.head)),
  );
  const styleOf = (name: (typeof COLUMNS)[number]): number =>
    name === 'id' ? STYLE.id : name === 'source' || name === 'where' ? STYLE.locked : STYLE.free;
  return el(
    'worksheet',
    { xmlns: MAIN },
    el(
      'sheetViews',
      {},
      el(
        'sheetView',
        { workbookViewId: 0, tabSelected: 1 },
        el('pane', { xSplit: 1, ySplit: 1, topLeftCell: 'B2', activePane: 'bottomRight', state: 'frozen' }),
      ),
    ),
    el(
      'cols',
      {},
      COLUMNS.map((name, i) => el('col', { min: i + 1, max: i + 1, width: WIDTHS[name], customWidth: 1 })),
    ),
    el(
      'sheetData',
      {},
      head,
      rows.map((row, r) =>
        el(
          'row',
          { r: r + 2 },
          row.map((text, i) =>
            text ? cell(r + 2, i, text, styleOf(COLUMNS[i]!)) : el('c', { r: `${column(i)}${r + 2}`, s: styleOf(COLUMNS[i]!) }),
          ),
        ),
      ),
    ),
    // Locked without a password: a person can lift it, and nobody changes an id by a slip.
    el('sheetProtection', { sheet: 1, formatCells: 0, formatColumns: 0, formatRows: 0, sort: 0, autoFilter: 0 }),
  );
}

const aboutSheet = (facts: readonly (readonly string[])[]): Xml =>
  el(
    'worksheet',
    { xmlns: MAIN },
    el('cols', {}, el('col', { min: 1, max: 1, width: 14, customWidth: 1 }), el('col', { min: 2, max: 2, width: 60, customWidth: 1 })),
    el(
      'sheetData',
      {},
      facts.map((row, r) =>
        el(
          'row',
          { r: r + 1 },
          row.map((text, i) => cell(r + 1, i, text, STYLE.locked)),
        ),
      ),
    ),
    el('sheetProtection', { sheet: 1 }),
  );

function styleSheet(): Xml {
  const font = (...inside: Xml[]): Xml => el('font', {}, inside, el('name', { val: 'Arial' }), el('family', { val: 2 }));
  const size = (n: number): Xml => el('sz', { val: n });
  const wrapped = el('alignment', { vertical: 'top', wrapText: 1 });
  const format = (fontId: number, locked: 0 | 1, fillId = 0): Xml =>
    el(
      'xf',
      {
        numFmtId: 49,
        fontId,
        fillId,
        borderId: 0,
        xfId: 0,
        applyNumberFormat: 1,
        applyFont: 1,
        applyFill: 1,
        applyAlignment: 1,
        applyProtection: 1,
      },
      wrapped,
      el('protection', { locked }),
    );
  const solid = (rgb: string): Xml => el('fill', {}, el('patternFill', { patternType: 'solid' }, el('fgColor', { rgb })));
  return el(
    'styleSheet',
    { xmlns: MAIN },
    el('fonts', { count: 3 }, font(size(11)), font(size(8), el('color', { rgb: 'FF59655E' })), font(el('b'), size(11))),
    el(
      'fills',
      { count: 4 },
      el('fill', {}, el('patternFill', { patternType: 'none' })),
      el('fill', {}, el('patternFill', { patternType: 'gray125' })),
      solid('FFFBF9F4'),
      solid('FFECE7DC'),
    ),
    el('borders', { count: 1 }, el('border', {}, el('left'), el('right'), el('top'), el('bottom'), el('diagonal'))),
    el('cellStyleXfs', { count: 1 }, el('xf', { numFmtId: 0, fontId: 0, fillId: 0, borderId: 0 })),
    el(
      'cellXfs',
      { count: 5 },
      el('xf', { numFmtId: 0, fontId: 0, fillId: 0, borderId: 0, xfId: 0 }),
      format(1, 1, 2),
      format(0, 1, 2),
      format(0, 0),
      format(2, 1, 3),
    ),
    el('cellStyles', { count: 1 }, el('cellStyle', { name: 'Normal', xfId: 0, builtinId: 0 })),
  );
}

export const xlsxWriter = exchangeWriter(xlsx);
