import Papa from 'papaparse';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';
import { COLUMNS, sheetRows } from '../exchange/sheetRows.ts';

/**
 * A cell that a spreadsheet program would run, or has a sign before it already, gets a sign before it that makes it text (OWASP, “CSV
 * Injection”); the reader takes one off again.
 */
const asText = (cell: string): string => (/^'*[=+\-@\t\r]/.test(cell) ? `'${cell}` : cell);

/** Comma-separated values (RFC 4180), in UTF-8 with its mark, so that spreadsheet programs know the letters. */
const csv: ExchangeFormat = {
  id: 'csv',
  label: 'CSV',
  about: 'For own programs and scripts, and for programs that read nothing else.',
  extension: '.csv',
  mediaType: 'text/csv',
  write(job) {
    const about = [`#document=${job.document.id}`, `#source=${job.source}`, `#target=${job.target}`];
    const head = [[...COLUMNS], [...about, '', '', '']];
    const rows = [...sheetRows(job)].map((row) => COLUMNS.map((c) => asText(row[c])));
    return `\uFEFF${Papa.unparse([...head, ...rows], { newline: '\r\n' })}\r\n`;
  },
};

export const csvWriter = exchangeWriter(csv);
