import { flatRgb, hex } from '../../folio/colour.ts';
import type { Head } from '../../folio/head.ts';
import type { CellStyle } from '../../folio/styles.ts';
import { lineOfSide, lookOfCellStyle } from '../../folio/tableCells.ts';
import { lineXml } from '../ooxml/drawing/line.ts';
import { fillXml } from '../ooxml/drawing/paint.ts';
import { guidOf } from '../ooxml/guid.ts';
import type { Xml } from '../assets/xml.ts';
import { el, xmlFile } from '../assets/xml.ts';

/** The style of tables that name none, by its id in the standard’s own examples: no style, no grid. */
const PLAIN = '{2D5ABB26-0587-4C30-8999-92F81FD0307C}';

export const tableStyleId = (head: Pick<Head, 'tableStyles'>, id: string | undefined): string =>
  id !== undefined && head.tableStyles[id] ? guidOf(`table style ${id}`) : PLAIN;

const SIDES = [
  ['a:left', 'left'],
  ['a:right', 'right'],
  ['a:top', 'top'],
  ['a:bottom', 'bottom'],
] as const;

/** A part of a style: the lines of its cells and their ground (ISO/IEC 29500-1, 20.1.4.2.24, CT_TablePartStyle). */
function partStyle(name: string, look: Partial<CellStyle>, head: Pick<Head, 'swatches'>): Xml {
  const ground = { swatches: head.swatches, opacity: 1, box: { x: 0, y: 0, width: 1, height: 1 } };
  const rgb = look.fill ? flatRgb(look.fill, head.swatches) : null;
  const lines = SIDES.map(([element, side]) => el(element, {}, lineXml(lineOfSide(look, side), ground)));
  const fill = rgb ? el('a:solidFill', {}, el('a:srgbClr', { val: hex(rgb).slice(1).toUpperCase() })) : fillXml({ type: 'none' }, ground);
  // Between cells the lines of both stand.
  const inside = [
    el('a:insideH', {}, lineXml(lineOfSide(look, 'bottom'), ground)),
    el('a:insideV', {}, lineXml(lineOfSide(look, 'right'), ground)),
  ];
  return el(name, {}, el('a:tcTxStyle'), el('a:tcStyle', {}, el('a:tcBdr', {}, lines, inside), el('a:fill', {}, fill)));
}

/** The document’s styles of tables by their names: their cells, every other row, the rows that head them. */
export const tableStylesFile = (head: Pick<Head, 'tableStyles' | 'cellStyles' | 'swatches'>): string =>
  xmlFile(
    el(
      'a:tblStyleLst',
      { 'xmlns:a': 'http://schemas.openxmlformats.org/drawingml/2006/main', def: PLAIN },
      Object.values(head.tableStyles).map((style) => {
        const part = (name: string, id: string | undefined): Xml | null =>
          id === undefined ? null : partStyle(name, lookOfCellStyle(head, id), head);
        return el(
          'a:tblStyle',
          { styleId: tableStyleId(head, style.id), styleName: style.name },
          part('a:wholeTbl', style.body),
          part('a:band2H', style.alternate?.style),
          part('a:firstRow', style.header),
        );
      }),
    ),
  );
