import Papa from 'papaparse';
import type { Inbound } from '../../language/exchange.ts';
import { FolioError } from '../../ports/ports.ts';
import { readerOfText } from './exchangeReader.ts';
import { Rows } from './rows.ts';

export const csvReader = readerOfText(
  {
    id: 'csv',
    extensions: ['.csv', '.tsv'],
  },
  readCsv,
);

/** Comma-separated values; semicolons and tabs as well, which programs of other countries write. */
function readCsv(text: string): Inbound {
  const rows = new Rows();
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimiter: '',
    delimitersToGuess: [',', ';', '\t'],
    skipEmptyLines: true,
  });
  const broken = errors.find((e) => e.type === 'Quotes');
  if (broken)
    throw new FolioError(
      'exchange.damaged',
      `The table breaks off in row ${(broken.row ?? 0) + 1}: a quotation mark does not end.`,
      'Save it again as CSV in UTF-8.',
    );
  for (const row of data) rows.take(row.map((cell) => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell)));
  return rows.done();
}
