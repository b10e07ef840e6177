import { flatRgb, hex, solidHex } from '../../folio/colour.ts';
import type { Paint } from '../../folio/colour.ts';
import type { Head } from '../../folio/head.ts';
import type { ResolvedStyle } from '../../folio/resolve.ts';
import { leadingOf } from '../../folio/resolve.ts';
import type { ParagraphProperties, RoleElement } from '../../folio/styles.ts';
import { headingLevel } from '../../structure/outline.ts';
import { eighths, twips } from '../ooxml/lengths.ts';
import type { Xml } from '../assets/xml.ts';
import { el, sequence, sequenceOrNone } from '../assets/xml.ts';

const ORDER = [
  'w:pStyle',
  'w:keepNext',
  'w:keepLines',
  'w:pageBreakBefore',
  'w:framePr',
  'w:widowControl',
  'w:numPr',
  'w:pBdr',
  'w:shd',
  'w:tabs',
  'w:suppressAutoHyphens',
  'w:bidi',
  'w:spacing',
  'w:ind',
  'w:jc',
  'w:textAlignment',
  'w:outlineLvl',
  'w:rPr',
  'w:sectPr',
] as const;
export type ParagraphPart = (typeof ORDER)[number];
/** `w:pPr` in the order of its schema (ISO/IEC 29500-1, 17.3.1.26, CT_PPr). */
export const paragraphProperties = sequenceOrNone<ParagraphPart>('w:pPr', ORDER);

const borders = sequence('w:pBdr', ['w:top', 'w:left', 'w:bottom', 'w:right'] as const);

/** One value for each property of paragraphs, as elements; all that a style can say. */
type Told = Exclude<ParagraphPart, 'w:pStyle' | 'w:framePr' | 'w:numPr' | 'w:tabs' | 'w:textAlignment' | 'w:rPr' | 'w:sectPr'>;
export interface ParagraphLook {
  told: Record<Told, Xml>;
  tabs: ParagraphProperties['tabs'];
}

/** How lines follow one another. `atLeast` leaves room for pictures in lines. */
export interface LinePitch {
  points: number;
  rule: 'exact' | 'atLeast';
}

const onOff = (name: string, on: boolean): Xml => el(name, on ? {} : { 'w:val': '0' });

/** How a paragraph's properties are told; `element`: its role, `pitch`: that of its lines. */
export function paragraphLook(
  { paragraph: p, character }: ResolvedStyle,
  head: Pick<Head, 'swatches' | 'listStyles'>,
  element: RoleElement,
  pitch: LinePitch = { points: leadingOf(character), rule: 'exact' },
): ParagraphLook {
  const level = headingLevel(element);
  const hanging = listIndent(p, head);
  const first = p.firstLineIndent - hanging;
  const rtl = p.direction === 'rtl';
  return {
    tabs: p.tabs,
    told: {
      'w:keepNext': onOff('w:keepNext', p.keepWithNext > 0),
      'w:keepLines': onOff('w:keepLines', p.keepLines),
      'w:pageBreakBefore': onOff('w:pageBreakBefore', p.breakBefore === 'page'),
      'w:widowControl': onOff('w:widowControl', p.orphans > 1 || p.widows > 1),
      'w:pBdr': bordersOf(p, head),
      'w:shd': p.shading ? ground(solidHex(p.shading.paint, head.swatches)) : el('w:shd', { 'w:val': 'clear', 'w:fill': 'auto' }),
      'w:suppressAutoHyphens': onOff('w:suppressAutoHyphens', !p.hyphenation),
      'w:bidi': onOff('w:bidi', rtl),
      'w:spacing': el('w:spacing', {
        'w:before': twips(Math.max(0, p.spaceBefore)),
        'w:after': twips(Math.max(0, p.spaceAfter)),
        'w:line': Math.max(1, twips(pitch.points)),
        'w:lineRule': pitch.rule,
      }),
      'w:ind': el('w:ind', {
        'w:left': twips(p.startIndent + hanging),
        'w:right': twips(p.endIndent),
        ...(first < 0 ? { 'w:hanging': twips(-first) } : { 'w:firstLine': twips(first) }),
      }),
      // What is left in a line from right to left is its end (17.3.1.13: as seen where lines run from left to right).
      'w:jc': el('w:jc', { 'w:val': JUSTIFIED[rtl && p.align === 'left' ? 'right' : rtl && p.align === 'right' ? 'left' : p.align] }),
      'w:outlineLvl': el('w:outlineLvl', { 'w:val': level ? level - 1 : 9 }),
    },
  };
}

const JUSTIFIED: Record<ParagraphProperties['align'], string> = {
  left: 'left',
  right: 'right',
  centre: 'center',
  justify: 'both',
  justifyAll: 'both',
};

/** How far a list's text stands in from its number. */
function listIndent(p: ParagraphProperties, head: Pick<Head, 'listStyles'>): number {
  const levels = p.list ? head.listStyles[p.list.style]?.levels : undefined;
  return levels?.[Math.min(p.list!.level, levels.length - 1)]?.indent ?? 0;
}

/** A ground of one colour, `#rrggbb`. */
export const ground = (colour: string): Xml =>
  el('w:shd', { 'w:val': 'clear', 'w:color': 'auto', 'w:fill': colour.slice(1).toUpperCase() });

/** A line; in points. Lines thinner than a quarter of a point are as thin as the format can say (17.18.2: from 2 to 96 eighths). */
export function border(
  name: string,
  line: { weight: number; paint: Paint; space?: number; dashes?: readonly number[] } | null,
  head: Pick<Head, 'swatches'>,
): Xml {
  const rgb = line && flatRgb(line.paint, head.swatches);
  if (!line || !rgb || line.weight <= 0) return el(name, { 'w:val': 'nil' });
  const dashed = line.dashes?.some((d) => d > 0) ? (line.dashes[0]! <= 1.5 * line.weight ? 'dotted' : 'dashed') : 'single';
  return el(name, {
    'w:val': dashed,
    'w:sz': Math.min(96, Math.max(2, eighths(line.weight))),
    'w:space': Math.min(31, Math.max(0, Math.round(line.space ?? 0))),
    'w:color': hex(rgb).slice(1).toUpperCase(),
  });
}

function bordersOf(p: ParagraphProperties, head: Pick<Head, 'swatches'>): Xml {
  const around = p.border && { weight: p.border.weight, paint: p.border.paint, space: p.border.offset };
  const rule = (r: ParagraphProperties['ruleAbove']) => (r ? { weight: r.weight, paint: r.paint, space: Math.abs(r.offset) } : around);
  return borders({
    'w:top': border('w:top', rule(p.ruleAbove), head),
    'w:left': border('w:left', around, head),
    'w:bottom': border('w:bottom', rule(p.ruleBelow), head),
    'w:right': border('w:right', around, head),
  });
}

const LEADERS: Record<string, string> = { '.': 'dot', '…': 'dot', '-': 'hyphen', '–': 'hyphen', _: 'underscore', '·': 'middleDot' };
const STOPS = { left: 'left', right: 'right', centre: 'center', character: 'decimal' } as const;

/** Stops, and those of the style below that are not theirs any more (17.3.1.37: `clear`). */
function tabsOf(tabs: ParagraphProperties['tabs'], from: ParagraphProperties['tabs']): Xml | null {
  if (JSON.stringify(tabs) === JSON.stringify(from)) return null;
  const own = new Map(tabs.map((t) => [twips(t.at), t]));
  const gone = [...new Set(from.map((t) => twips(t.at)))].filter((at) => !own.has(at));
  const all = [...[...own].map(([at, t]) => ({ at, t })), ...gone.map((at) => ({ at, t: null }))].sort((a, b) => a.at - b.at);
  if (!all.length) return null;
  return el(
    'w:tabs',
    {},
    all.map(({ at, t }) =>
      el('w:tab', {
        'w:val': t ? STOPS[t.align] : 'clear',
        'w:leader': t?.leader ? (LEADERS[t.leader.trim()[0] ?? ''] ?? 'dot') : undefined,
        'w:pos': at,
      }),
    ),
  );
}

/** What differs from a look, as elements. */
export function differingParts(look: ParagraphLook, from: ParagraphLook | null): Partial<Record<ParagraphPart, Xml | null>> {
  const told = (Object.keys(look.told) as Told[]).filter((k) => !from || look.told[k] !== from.told[k]).map((k) => [k, look.told[k]]);
  return { ...(Object.fromEntries(told) as Partial<Record<ParagraphPart, Xml>>), 'w:tabs': tabsOf(look.tabs, from?.tabs ?? []) };
}
