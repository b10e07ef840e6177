import { formatNumber } from '../../compose/listLabels.ts';
import { solidHex } from '../../folio/colour.ts';
import { resolveSpan } from '../../folio/resolve.ts';
import type { ResolvedStyle } from '../../folio/resolve.ts';
import type { ParagraphProperties } from '../../folio/styles.ts';
import { emu } from '../ooxml/lengths.ts';
import type { Child, Xml } from '../assets/xml.ts';
import { el, sequence } from '../assets/xml.ts';
import { faceOf, runLook } from './runLook.ts';
import type { SlideContext } from './slideContext.ts';

/** `a:pPr` in the order of its schema (ISO/IEC 29500-1, 21.1.2.2.7, CT_TextParagraphProperties). */
const ORDER = [
  'a:lnSpc',
  'a:spcBef',
  'a:spcAft',
  'a:buClr',
  'a:buFont',
  'a:buNone',
  'a:buAutoNum',
  'a:buChar',
  'a:tabLst',
  'a:defRPr',
] as const;
const properties = sequence('a:pPr', ORDER);
const firstLevel = sequence('a:lvl1pPr', ORDER);

const ALIGNED: Record<ParagraphProperties['align'], string> = { left: 'l', right: 'r', centre: 'ctr', justify: 'just', justifyAll: 'dist' };
const STOPS: Record<ParagraphProperties['tabs'][number]['align'], string> = { left: 'l', right: 'r', centre: 'ctr', character: 'dec' };

const spacing = (name: 'a:lnSpc' | 'a:spcBef' | 'a:spcAft', points: number): Xml =>
  el(name, {}, el('a:spcPts', { val: Math.min(158_400, Math.max(0, Math.round(points * 100))) }));

/** Numbers as the format can count them, by what stands around them (20.1.10.61, ST_TextAutonumberScheme). */
const SCHEMES: Record<string, string> = {
  decimal: 'arabic',
  lowerAlpha: 'alphaLc',
  upperAlpha: 'alphaUc',
  lowerRoman: 'romanLc',
  upperRoman: 'romanUc',
};
const AROUND: Record<string, string> = { '{n}.': 'Period', '{n})': 'ParenR', '({n})': 'ParenBoth' };

type Level = SlideContext['folio']['head']['listStyles'][string]['levels'][number];

/** What stands before an entry of a list: a sign, a number that the format counts, or words of the text itself. */
export type Label =
  | { kind: 'sign'; level: number; parts: Bullet }
  | { kind: 'counted'; level: number; scheme: string; number: number; parts: Bullet }
  | { kind: 'words'; text: string };
type Bullet = Partial<Record<'a:buClr' | 'a:buFont' | 'a:buChar', Child>>;

/** How an entry of a list is told; `text`: what stands before it in the layout. */
export function labelOf(resolved: ResolvedStyle, text: string | undefined, c: SlideContext): Label | null {
  const { list } = resolved.paragraph;
  const levels = list ? c.folio.head.listStyles[list.style]?.levels : undefined;
  const own = levels?.[Math.min(list!.level, levels.length - 1)];
  if (!own || text === undefined) return null;
  const counted = schemeOf(own, text);
  const isSign = own.kind === 'bullet' && [...text.trim()].length === 1;
  if (!isSign && !counted) return { kind: 'words', text };
  const look = own.character === undefined ? null : resolveSpan(c.folio.head, resolved.character, { style: own.character });
  const parts: Bullet = {
    'a:buClr': look && el('a:buClr', {}, el('a:srgbClr', { val: solidHex(look.fill, c.folio.head.swatches).slice(1).toUpperCase() })),
    'a:buFont': look && el('a:buFont', { typeface: faceOf(look, c).family }),
  };
  // The format has nine levels (21.1.2.2.7).
  const level = Math.min(8, list!.level);
  if (!counted) return { kind: 'sign', level, parts: { ...parts, 'a:buChar': el('a:buChar', { char: text.trim() }) } };
  return { kind: 'counted', level, parts, ...counted };
}

/** How the format counts a label, beginning with its number; null where it has no such way. */
function schemeOf(level: Level, text: string): { scheme: string; number: number } | null {
  if (level.kind !== 'number') return null;
  const around = AROUND[level.text.trim()];
  // Bare numbers and letters: the format has the first kind only (arabicPlain).
  const scheme = around
    ? `${SCHEMES[level.format]}${around}`
    : level.text.trim() === '{n}' && level.format === 'decimal'
      ? 'arabicPlain'
      : null;
  if (!scheme) return null;
  const bare = text.trim().replace(/[().]/g, '');
  for (let n = 1; n <= 32_767; n++) if (formatNumber(n, level.format) === bare) return { scheme, number: n };
  return null;
}

/** How far a list’s text stands in from its number. */
function hangingOf(p: ParagraphProperties, c: SlideContext): number {
  const levels = p.list ? c.folio.head.listStyles[p.list.style]?.levels : undefined;
  return levels?.[Math.min(p.list!.level, levels.length - 1)]?.indent ?? 0;
}

export interface ParagraphPlace {
  /** The distance of its lines, in points. */
  pitch: number;
  label: Label | null;
  /** Of an entry that the format counts: the number with which its list begins in this box. */
  begins: number;
  /** The room above a text begins with its box. */
  isFirst: boolean;
}

/** How a paragraph’s properties are told. */
export const paragraphLook = (resolved: ResolvedStyle, place: ParagraphPlace, c: SlideContext): Xml =>
  properties(partsOf(resolved, place), attributesOf(resolved, place, c));

/** The same as what new text in a place of a layout looks like (21.1.2.4.13). */
export function levelLook(resolved: ResolvedStyle, pitch: number, c: SlideContext): Xml {
  const place: ParagraphPlace = { pitch, label: null, begins: 1, isFirst: false };
  const parts = { ...partsOf(resolved, place), 'a:defRPr': runLook('a:defRPr', resolved.character, c) };
  return firstLevel(parts, attributesOf(resolved, place, c));
}

function partsOf(
  { paragraph: p }: ResolvedStyle,
  { pitch, label, begins, isFirst }: ParagraphPlace,
): Partial<Record<(typeof ORDER)[number], Child>> {
  const stops = p.tabs.slice(0, 32).map((t) => el('a:tab', { pos: emu(t.at), algn: STOPS[t.align] }));
  return {
    'a:lnSpc': spacing('a:lnSpc', pitch),
    'a:spcBef': spacing('a:spcBef', isFirst ? 0 : p.spaceBefore),
    'a:spcAft': spacing('a:spcAft', p.spaceAfter),
    ...(label && label.kind !== 'words' ? label.parts : { 'a:buNone': el('a:buNone') }),
    'a:buAutoNum': label?.kind === 'counted' && el('a:buAutoNum', { type: label.scheme, startAt: begins === 1 ? undefined : begins }),
    'a:tabLst': stops.length > 0 && el('a:tabLst', {}, stops),
  };
}

/** The longest that indents can be, in EMU (20.1.10.72, ST_TextIndent). */
const MOST = 51_206_400;

function attributesOf(
  { paragraph: p }: ResolvedStyle,
  { label }: ParagraphPlace,
  c: SlideContext,
): Record<string, string | number | undefined> {
  const hanging = hangingOf(p, c);
  const rtl = p.direction === 'rtl';
  const within = (points: number, least: number): number => Math.min(MOST, Math.max(least, emu(points)));
  return {
    marL: within(p.startIndent + hanging, 0),
    marR: within(p.endIndent, 0),
    indent: within(p.firstLineIndent - hanging, -MOST),
    lvl: (label && label.kind !== 'words' && label.level) || undefined,
    // What is left in a line from right to left is its end.
    algn: rtl && p.align === 'left' ? 'r' : rtl && p.align === 'right' ? 'l' : ALIGNED[p.align],
    rtl: rtl ? 1 : 0,
    hangingPunct: p.hangingPunctuation ? 1 : 0,
  };
}
