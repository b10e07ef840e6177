import { flatRgb, hex } from '../../folio/colour.ts';
import type { Head } from '../../folio/head.ts';
import { lineOfSide, lookOfCellStyle, roomInCell } from '../../folio/tableCells.ts';
import type { CellStyle } from '../../folio/styles.ts';
import { twips } from '../ooxml/lengths.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { el, sequence, sequenceOrNone } from '../assets/xml.ts';
import { border, ground } from './paragraphLook.ts';
import type { StyleName } from './styleNames.ts';

/** `w:tcPr` in the order of its schema (ISO/IEC 29500-1, 17.4.69, CT_TcPr). */
export const cellProperties = sequence('w:tcPr', [
  'w:tcW',
  'w:gridSpan',
  'w:vMerge',
  'w:tcBorders',
  'w:shd',
  'w:tcMar',
  'w:vAlign',
] as const);
const borders = sequence('w:tcBorders', ['w:top', 'w:left', 'w:bottom', 'w:right'] as const);
const margins = sequence('w:tcMar', ['w:top', 'w:left', 'w:bottom', 'w:right'] as const);
const styleProperties = sequenceOrNone('w:tcPr', ['w:tcBorders', 'w:shd', 'w:tcMar', 'w:vAlign'] as const);

/** A cell's lines, ground and room. */
export function cellLook(look: Partial<CellStyle>, head: Pick<Head, 'swatches'>): { 'w:tcBorders': Xml; 'w:shd': Xml; 'w:tcMar': Xml } {
  const rgb = look.fill ? flatRgb(look.fill, head.swatches) : null;
  const [top, right, bottom, left] = roomInCell(look);
  const side = (name: 'top' | 'right' | 'bottom' | 'left'): Xml => border(`w:${name}`, lineOfSide(look, name), head);
  const room = (name: string, points: number): Xml => el(name, { 'w:w': twips(points), 'w:type': 'dxa' });
  return {
    'w:tcBorders': borders({ 'w:top': side('top'), 'w:left': side('left'), 'w:bottom': side('bottom'), 'w:right': side('right') }),
    'w:shd': rgb ? ground(hex(rgb)) : el('w:shd', { 'w:val': 'clear', 'w:color': 'auto', 'w:fill': 'auto' }),
    'w:tcMar': margins({
      'w:top': room('w:top', top),
      'w:left': room('w:left', left),
      'w:bottom': room('w:bottom', bottom),
      'w:right': room('w:right', right),
    }),
  };
}

/** A style of tables: how its cells look, those of the rows at its head, and those of every other row. */
export function tableStyle(
  name: StyleName,
  table: Head['tableStyles'][string],
  head: Pick<Head, 'swatches' | 'cellStyles'>,
  style: (
    parts: Partial<Record<'w:name' | 'w:basedOn' | 'w:qFormat' | 'w:tblPr' | 'w:tcPr' | 'w:tblStylePr', Child>>,
    attributes: Record<string, string>,
  ) => Xml,
): Xml {
  const look = (id: string | undefined): Xml | null => styleProperties(cellLook(lookOfCellStyle(head, id), head));
  const part = (type: string, id: string | undefined): Xml | null =>
    id === undefined ? null : el('w:tblStylePr', { 'w:type': type }, look(id));
  const every = table.alternate?.every ?? 1;
  const bands = table.alternate && el('w:tblStyleRowBandSize', { 'w:val': every });
  return style(
    {
      'w:name': el('w:name', { 'w:val': name.name }),
      'w:basedOn': el('w:basedOn', { 'w:val': 'TableNormal' }),
      'w:qFormat': el('w:qFormat'),
      'w:tblPr': el('w:tblPr', {}, bands, el('w:tblInd', { 'w:w': 0, 'w:type': 'dxa' })),
      'w:tcPr': look(table.body),
      'w:tblStylePr': [part('firstRow', table.header), part('band2Horz', table.alternate?.style)],
    },
    { 'w:type': 'table', 'w:customStyle': '1', 'w:styleId': name.id },
  );
}
