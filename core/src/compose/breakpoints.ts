import LineBreaker from 'linebreak';
import type { ParagraphProperties } from '../folio/styles.ts';
import { SOFT_HYPHEN } from '../folio/text.ts';
import { hyphenPoints } from './hyphenate.ts';
import type { ShapedParagraph } from './shapeParagraph.ts';

/** A place in set text where a line may end. */
export interface Opportunity {
  /** End of what is shown. */
  end: number;
  /** Where the next line begins, after spaces that vanish. */
  next: number;
  /** A soft return: the line must end. */
  required: boolean;
  /** A word is divided: a hyphen is shown. */
  hyphen: boolean;
}

/** Spaces that vanish at a line's end (UAX 14, classes SP and BA; CSS Text 3, 4.1.3); a soft return goes with them. */
export function vanishes(unit: number): boolean {
  if (unit === 0x20 || unit === 0x0a) return true;
  return unit >= 0x1680 && (unit === 0x1680 || (unit >= 0x2000 && unit <= 0x200a && unit !== 0x2007) || unit === 0x205f || unit === 0x3000);
}

/**
 * Where lines may end: UAX 14, less what lies inside passages that must not be broken. A soft hyphen is an
 * opportunity that shows a hyphen. The paragraph's end is the last one.
 */
export function opportunitiesOf(shaped: ShapedParagraph): Opportunity[] {
  const { text } = shaped;
  const breaker = new LineBreaker(text);
  const found: Opportunity[] = [];
  const together = noBreakRanges(shaped);
  for (let b = breaker.nextBreak(); b; b = breaker.nextBreak()) {
    const { position } = b;
    const required = b.required === true && position < text.length;
    if (!required && together.some(([from, to]) => position > from && position < to)) continue;
    let end = position;
    while (end > 0 && vanishes(text.charCodeAt(end - 1))) end--;
    found.push({
      end,
      next: position,
      required,
      // At the very end there is no word to go on.
      hyphen: text[end - 1] === SOFT_HYPHEN && end === position && position < text.length,
    });
  }
  return found;
}

function noBreakRanges(shaped: ShapedParagraph): [number, number][] {
  const out: [number, number][] = [];
  for (const look of shaped.looks) {
    if (!look.character.noBreak) continue;
    const last = out[out.length - 1];
    if (last?.[1] === look.start) last[1] = look.end;
    else out.push([look.start, look.end]);
  }
  return out;
}

/** Opportunities from a unit on with those where the paragraph's language allows a word between to be divided, in order. */
export function withHyphens(
  shaped: ShapedParagraph,
  opportunities: readonly Opportunity[],
  paragraph: ParagraphProperties,
  from: number,
): Opportunity[] {
  const limits = paragraph.hyphenation;
  if (!limits) return [...opportunities];
  const to = opportunities[opportunities.length - 1]?.next ?? from;
  const points: number[] = [];
  for (const { start, end, language } of languageRanges(shaped))
    if (end > from && start < to) points.push(...hyphenPoints(shaped.text, Math.max(start, from), Math.min(end, to), language, limits));
  const together = noBreakRanges(shaped);
  const out: Opportunity[] = [];
  let i = 0;
  for (const point of points) {
    while (i < opportunities.length && opportunities[i]!.next <= point) out.push(opportunities[i++]!);
    if (out[out.length - 1]?.next === point || together.some(([from, to]) => point > from && point < to)) continue;
    out.push({ end: point, next: point, required: false, hyphen: true });
  }
  out.push(...opportunities.slice(i));
  return out;
}

/** Stretches of one language that may be hyphenated; a word may change its look, but not its language. */
function languageRanges(shaped: ShapedParagraph): { start: number; end: number; language: string }[] {
  const out: { start: number; end: number; language: string }[] = [];
  for (const look of shaped.looks) {
    const last = out[out.length - 1];
    const { language } = look.character;
    if (last && last.language === language && last.end === look.start) last.end = look.end;
    else out.push({ start: look.start, end: look.end, language });
  }
  return out;
}
