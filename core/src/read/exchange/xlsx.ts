import { SaxesParser } from 'saxes';
import { FolioError } from '../../ports/ports.ts';
import { collect, readArchive } from '../../packages/archive.ts';
import type { ArchiveLimits } from '../../packages/limits.ts';
import type { ExchangeReader } from './exchangeReader.ts';
import { Rows } from './rows.ts';
import { xmlFault } from '../../folio/xmlFault.ts';

export const xlsxReader: ExchangeReader = { id: 'xlsx', extensions: ['.xlsx'], read: readXlsx };

const WANTED = /^xl\/(sharedStrings\.xml|worksheets\/sheet\d+\.xml)$/;

/** A workbook: the first sheet with columns named “id” and “target” holds the texts; another says what they belong to. */
async function readXlsx(file: string, limits: ArchiveLimits) {
  const parts = new Map<string, string>();
  for await (const entry of readArchive(file, limits))
    if (WANTED.test(entry.path))
      parts.set(entry.path, (await collect(await entry.open(), limits.partBytes * 4, entry.path)).toString('utf8'));
  const sheets = [...parts.keys()].filter((p) => p.includes('worksheets')).sort((a, b) => a.localeCompare(b, 'en', { numeric: true }));
  if (!sheets.length)
    throw new FolioError('exchange.kind', 'The file is no spreadsheet.', 'Choose a file ending in .xlsx that a spreadsheet program saved.');
  const shared = sharedStrings(parts.get('xl/sharedStrings.xml'));
  let texts: Rows | null = null;
  const facts = new Map<string, string>();
  for (const path of sheets) {
    const rows = new Rows();
    let isTexts = false;
    eachRow(parts.get(path)!, path, shared, (cells, formula) => {
      if (!isTexts && cells.length === 2) facts.set(cells[0]!.trim().toLowerCase(), cells[1]!);
      isTexts ||= cells.some((c) => c.trim().toLowerCase() === 'target') && cells.some((c) => c.trim().toLowerCase() === 'id');
      rows.take(cells, formula);
    });
    if (isTexts) texts ??= rows;
  }
  const out = (texts ?? new Rows()).done();
  out.document = facts.get('document') ?? out.document;
  out.source = facts.get('source') ?? out.source;
  out.target = facts.get('target') ?? out.target;
  return out;
}

const damaged = (path: string, why: string): FolioError =>
  new FolioError(
    'exchange.damaged',
    `${path} of the spreadsheet cannot be read: ${why}.`,
    'Open it in a spreadsheet program and save it again.',
  );

function parserFor(path: string): SaxesParser {
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw damaged(path, xmlFault(error));
  });
  parser.on('doctype', () => {
    throw damaged(path, 'it has a document type, which no spreadsheet has');
  });
  return parser;
}

const local = (name: string): string => name.slice(name.indexOf(':') + 1);

/** Texts that cells share (18.4): readings above words are left out. */
function sharedStrings(xml: string | undefined): string[] {
  const out: string[] = [];
  if (xml === undefined) return out;
  const parser = parserFor('The table of texts');
  let text: string | null = null;
  let within = false;
  let above = 0;
  parser.on('opentag', ({ name }) => {
    if (local(name) === 'si') text = '';
    if (local(name) === 'rPh') above++;
    within = local(name) === 't' && !above;
  });
  parser.on('text', (t) => {
    if (within && text !== null) text += t;
  });
  parser.on('closetag', ({ name }) => {
    if (local(name) === 'rPh') above--;
    if (local(name) === 't') within = false;
    if (local(name) === 'si') out.push(unescaped(text ?? ''));
  });
  parser.write(xml).close();
  return out;
}

/** Signs that XML cannot hold are written `_x001F_` (22.9.2.19). */
const unescaped = (text: string): string =>
  text.replace(/_x([0-9A-Fa-f]{4})_/g, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)));

/** The rows of a sheet, each cell in its column; a formula is never worked out: what it showed last is its text. */
function eachRow(xml: string, path: string, shared: readonly string[], take: (cells: string[], formula: boolean) => void): void {
  const parser = parserFor(path);
  let row: string[] = [];
  let formula = false;
  let cell: { at: number; type: string; text: string } | null = null;
  let within = false;
  let above = 0;
  parser.on('opentag', ({ name, attributes }) => {
    switch (local(name)) {
      case 'row':
        row = [];
        formula = false;
        break;
      case 'c': {
        const letters = /^[A-Z]{1,3}/.exec(String(attributes['r'] ?? ''))?.[0];
        const at = letters ? [...letters].reduce((n, l) => n * 26 + l.charCodeAt(0) - 64, 0) - 1 : row.length;
        cell = { at, type: String(attributes['t'] ?? 'n'), text: '' };
        break;
      }
      case 'f':
        formula = true;
        break;
      case 'rPh':
        above++;
        break;
      case 'v':
      case 't':
        within = !above;
        break;
    }
  });
  parser.on('text', (t) => {
    if (within && cell) cell.text += t;
  });
  parser.on('closetag', ({ name }) => {
    const what = local(name);
    if (what === 'rPh') above--;
    if (what === 'v' || what === 't') within = false;
    if (what === 'c' && cell) {
      if (cell.at > 200) return;
      while (row.length < cell.at) row.push('');
      row[cell.at] = cell.type === 's' ? (shared[Number(cell.text)] ?? '') : unescaped(cell.text);
      cell = null;
    }
    if (what === 'row' && row.length) take(row, formula);
  });
  parser.write(xml).close();
}
