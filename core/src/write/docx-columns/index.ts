import { readable } from '../../language/parts.ts';
import type { TextPart } from '../../folio/edition.ts';
import { CONTENT, NAMESPACES } from '../ooxml/wordNamespaces.ts';
import { exchangeWriter } from '../exchange/exchangeWriter.ts';
import { placeOf } from '../exchange/exchangeFormat.ts';
import type { ExchangeFormat } from '../exchange/exchangeFormat.ts';
import { OFFICE, OfficePackage } from '../ooxml/officePackage.ts';
import { collectBytes } from '../assets/outputFile.ts';
import { all, el, words, xmlFile } from '../assets/xml.ts';
import type { Xml } from '../assets/xml.ts';

/** Widths of the columns in twentieths of a point: name, source, target. */
const WIDTHS = [1300, 6700, 6700];
/** A landscape sheet of A4 with margins of 2 cm. */
const PAGE = { width: 16838, height: 11906, margin: 1134 };

/** A document of two columns (WordprocessingML, ISO/IEC 29500-1, part 17): the source beside the target, for reading and changing. */
const columns: ExchangeFormat = {
  id: 'docx-columns',
  label: 'Two columns',
  about: 'For a reviewer in the country: source and target side by side in a text document (DOCX).',
  extension: '.docx',
  mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  async write(job) {
    const { document, source, target, units, translated, copySource } = job;
    const rows = units.flatMap((unit) =>
      unit.segments.map((segment) => {
        const has = translated.get(segment.id);
        const said = has?.target ?? (copySource ? segment.source : null);
        return row([
          cell(
            WIDTHS[0]!,
            paragraph([run(segment.id, { small: true })]),
            placeOf(unit) ? paragraph([run(placeOf(unit), { small: true })]) : null,
          ),
          cell(WIDTHS[1]!, paragraph(coded(segment.source, source))),
          cell(WIDTHS[2]!, paragraph(said ? coded(said, target) : [])),
        ]);
      }),
    );
    const table = el(
      'w:tbl',
      {},
      el(
        'w:tblPr',
        {},
        el('w:tblW', { 'w:w': WIDTHS.reduce((a, b) => a + b), 'w:type': 'dxa' }),
        borders(),
        el('w:tblLayout', { 'w:type': 'fixed' }),
      ),
      el(
        'w:tblGrid',
        {},
        WIDTHS.map((w) => el('w:gridCol', { 'w:w': w })),
      ),
      row(
        ['id', source, target].map((text, i) => cell(WIDTHS[i]!, paragraph([run(text, { bold: true })]))),
        true,
      ),
      rows,
    );
    const body = el(
      'w:body',
      {},
      paragraph([run(`${document.title || document.id}: ${source} → ${target}`, { bold: true })]),
      paragraph([run(`document=${document.id}; source=${source}; target=${target}`, { small: true })]),
      table,
      paragraph([]),
      el(
        'w:sectPr',
        {},
        el('w:pgSz', { 'w:w': PAGE.width, 'w:h': PAGE.height, 'w:orient': 'landscape' }),
        el('w:pgMar', {
          'w:top': PAGE.margin,
          'w:right': PAGE.margin,
          'w:bottom': PAGE.margin,
          'w:left': PAGE.margin,
          'w:header': 567,
          'w:footer': 567,
          'w:gutter': 0,
        }),
      ),
    );
    const pack = new OfficePackage();
    const main = pack.add('word/document.xml', CONTENT.document, xmlFile(el('w:document', NAMESPACES, body)));
    pack.relate(`${OFFICE}/officeDocument`, main);
    return collectBytes(pack.bytes());
  },
};

const borders = (): Xml =>
  el(
    'w:tblBorders',
    {},
    ['top', 'left', 'bottom', 'right', 'insideH', 'insideV'].map((side) =>
      el(`w:${side}`, { 'w:val': 'single', 'w:sz': 4, 'w:space': 0, 'w:color': 'D9D2C3' }),
    ),
  );

const row = (cells: readonly Xml[], isHead = false): Xml =>
  el('w:tr', {}, el('w:trPr', {}, el('w:cantSplit'), isHead && el('w:tblHeader')), cells);
const cell = (width: number, ...inside: (Xml | null)[]): Xml =>
  el('w:tc', {}, el('w:tcPr', {}, el('w:tcW', { 'w:w': width, 'w:type': 'dxa' })), inside);
const paragraph = (runs: readonly Xml[]): Xml => el('w:p', {}, el('w:pPr', {}, el('w:spacing', { 'w:before': 40, 'w:after': 40 })), runs);

function run(text: string, look: { bold?: boolean; small?: boolean; code?: boolean; language?: string } = {}): Xml {
  const { bold, small, code, language } = look;
  const properties = all(
    el('w:rFonts', { 'w:ascii': 'Arial', 'w:hAnsi': 'Arial', 'w:cs': 'Arial' }),
    bold && el('w:b'),
    code ? el('w:color', { 'w:val': '7F5400' }) : small ? el('w:color', { 'w:val': '59655E' }) : null,
    el('w:sz', { 'w:val': small ? 14 : 20 }),
    language !== undefined && el('w:lang', { 'w:val': language, 'w:eastAsia': language }),
  );
  return el('w:r', {}, el('w:rPr', {}, properties), el('w:t', { 'xml:space': 'preserve' }, words(text)));
}

/** Codes in another colour than words; a wrap mark as the line break that it is, and so that it is seen. */
const coded = (parts: readonly TextPart[], language: string): Xml[] =>
  parts.map((p) =>
    p.type === 'text'
      ? run(readable([p]), { language })
      : p.type === 'wrap'
        ? el('w:r', {}, el('w:br'))
        : run(readable([p]), { code: true }),
  );

export const docxColumnsWriter = exchangeWriter(columns);
