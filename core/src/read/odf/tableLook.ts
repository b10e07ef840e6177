import type { z } from 'zod';
import type { Stroke } from '../../folio/appearance.ts';
import type { Cell } from '../../folio/story.ts';
import { lengthOf } from './lengths.ts';
import { fillOf } from './looks.ts';
import { merge } from './styleSheet.ts';
import type { OdfStyle, Properties, Scope } from './styleSheet.ts';
import { borderOf } from './textProperties.ts';
import type { TextContext } from './textReader.ts';
import { childrenOf } from '../../packages/xmlTree.ts';
import type { XmlElement } from '../../packages/xmlTree.ts';

type CellOf = z.infer<typeof Cell>;
type CellLook = Pick<CellOf, 'fill' | 'stroke' | 'sides' | 'inset'>;

/** Where a cell stands: its row and column, and how many the table has. */
export interface CellPlace {
  row: number;
  column: number;
  rows: number;
  columns: number;
}

/** Parts of a table that a template has looks for (OpenDocument 1.3 part 3, 9.1 and 16.18), the strongest first. */
const PARTS: { part: string; use: string; holds: (p: CellPlace, below: number) => boolean }[] = [
  { part: 'first-row', use: 'first-row', holds: (p) => p.row === 0 },
  { part: 'last-row', use: 'last-row', holds: (p) => p.row === p.rows - 1 },
  { part: 'first-column', use: 'first-column', holds: (p) => p.column === 0 },
  { part: 'last-column', use: 'last-column', holds: (p) => p.column === p.columns - 1 },
  // Rows are counted from the first below the table's head.
  { part: 'odd-rows', use: 'banding-rows', holds: (_, below) => below % 2 === 0 },
  { part: 'even-rows', use: 'banding-rows', holds: (_, below) => below % 2 === 1 },
  { part: 'odd-columns', use: 'banding-columns', holds: (p) => p.column % 2 === 0 },
  { part: 'even-columns', use: 'banding-columns', holds: (p) => p.column % 2 === 1 },
];

/** The looks that a table's cells get: from its template, and from styles of their own. */
export class TableLook {
  /** Whether its first row is its head. */
  readonly firstRow: boolean;
  /** The style that the template makes, where there is one. */
  readonly style: string | undefined;
  private readonly parts = new Map<string, OdfStyle>();
  private readonly uses: (what: string) => boolean;
  /** What the table's style gives its head, and its other rows in turn. */
  private readonly given: { header: OdfStyle | undefined; odd: OdfStyle | undefined; even: OdfStyle | undefined };

  constructor(
    table: XmlElement,
    private readonly context: TextContext,
    private readonly scope: Scope,
  ) {
    const { sheet } = context;
    const a = table.attributes;
    this.uses = (what) => a[`table:use-${what}-styles`] === 'true';
    this.firstRow = this.uses('first-row');
    const template = sheet.templates.get(a['table:template-name'] ?? a['table:style-name'] ?? '');
    for (const part of template ? childrenOf(template) : []) {
      const style = sheet.find('table-cell', part.attributes['table:style-name'], 'named');
      if (style) this.parts.set(part.name.replace('table:', ''), style);
    }
    // Cells in the middle of a large table have what the table's style says.
    const inside = (row: number) => this.part({ row, column: 1, rows: 9, columns: 4 });
    const first = this.firstRow ? 1 : 0;
    this.given = { header: first ? inside(0) : undefined, odd: inside(first + 2), even: inside(first + 3) };
    this.style = this.tableStyle();
  }

  private tableStyle(): string | undefined {
    const { header, odd, even } = this.given;
    if (!odd) return undefined;
    return this.context.book.tableStyle(
      odd.displayName,
      this.idOf(odd),
      header && this.idOf(header),
      even && even !== odd ? this.idOf(even) : undefined,
    );
  }

  /** The named cell style that the template has for a place. */
  part(place: CellPlace): OdfStyle | undefined {
    const below = place.row - (this.firstRow ? 1 : 0);
    for (const { part, use, holds } of PARTS)
      if (this.uses(use) && this.parts.has(part) && holds(place, below)) return this.parts.get(part);
    return this.parts.get('body');
  }

  /** A cell's look: the named style where it is another than the table's own gives it, and what is only this cell's. */
  cell(name: string | undefined, place: CellPlace) {
    const { sheet } = this.context;
    const named = sheet.named('table-cell', name, this.scope) ?? this.part(place);
    const below = place.row - (this.firstRow ? 1 : 0);
    const given = below < 0 ? this.given.header : below % 2 === 0 ? this.given.odd : this.given.even;
    const all = merge([sheet.resolve('table-cell', named?.name, 'styles'), sheet.overrides('table-cell', name, this.scope)]);
    const own = named ? sheet.overrides('table-cell', name, this.scope) : all;
    return {
      named,
      look: { ...(named && named !== given && { style: this.idOf(named) }), ...lookOf(own, this.context) },
      verticalAlign: verticalAlignOf(all),
    };
  }

  private idOf(style: OdfStyle): string {
    return this.context.book.cellStyle(style, (own) => lookOf(own, this.context));
  }
}

const SIDES = ['top', 'right', 'bottom', 'left'] as const;

/** Fill, lines and room of a cell's properties. */
function lookOf(properties: Properties, context: TextContext): CellLook {
  const a = properties['table-cell'] ?? {};
  const out: CellLook = {};
  const fill = fillLook(a, context);
  if (fill) out.fill = fill;
  const lines = SIDES.map((side) => a[`fo:border-${side}`] ?? a['fo:border']);
  if (new Set(lines).size > 1)
    Object.assign(out, {
      stroke: null,
      sides: Object.fromEntries(SIDES.flatMap((side, i) => (lines[i] === undefined ? [] : [[side, lineOf(lines[i])]]))),
    });
  else if (lines[0] !== undefined) out.stroke = lineOf(lines[0]);
  const inset = SIDES.map((side) => lengthOf(a[`fo:padding-${side}`] ?? a['fo:padding']));
  if (inset.some((room) => room !== undefined)) out.inset = inset.map((room) => Math.max(0, room ?? 0)) as [number, number, number, number];
  return out;
}

/** A cell's fill: an even one, since a cell's own place is known only when the table is set. */
function fillLook(a: Record<string, string>, { sheet, notTaken }: TextContext): CellLook['fill'] {
  const back = a['fo:background-color'];
  if (a['draw:fill'] === undefined && a['draw:fill-color'] === undefined) {
    if (back === undefined) return undefined;
    a = back === 'transparent' ? { 'draw:fill': 'none' } : { 'draw:fill': 'solid', 'draw:fill-color': back };
  }
  const fill = fillOf({ 'draw:fill': 'solid', ...a }, sheet.definitions, { x: 0, y: 0, width: 1, height: 1 }, notTaken);
  if (fill.image)
    notTaken.add('leftOut', fill.image.kind === 'hatch' ? 'Hatch behind a cell' : 'Picture behind a cell', 'the cell has no fill');
  if (fill.paint.type !== 'gradient') return fill.paint;
  notTaken.add('changed', 'Gradient behind a cell', 'the cell has the gradient’s middle colour');
  const { stops } = fill.paint.gradient;
  return stops[Math.floor(stops.length / 2)]!.paint;
}

function lineOf(text: string): Stroke | null {
  const border = borderOf(text);
  if (!border) return null;
  const { weight } = border;
  const dashes = /dashed/.test(text) ? [3 * weight, 2 * weight] : /dotted/.test(text) ? [weight, weight] : [];
  return { ...border, dashes, cap: 'butt', join: 'miter', miterLimit: 4, startMarker: 'none', endMarker: 'none' };
}

function verticalAlignOf(all: Properties): CellOf['verticalAlign'] {
  const a = all['table-cell'] ?? {};
  const align = a['draw:textarea-vertical-align'] ?? a['style:vertical-align'];
  return align === 'middle' ? 'centre' : align === 'bottom' ? 'bottom' : 'top';
}
