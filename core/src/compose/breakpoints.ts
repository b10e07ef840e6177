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
const VANISHES = /[ \u1680\u2000-\u2006\u2008-\u200A\u205F\u3000\n]/;
export const vanishes = (c: string | undefined): boolean => c !== undefined && VANISHES.test(c);

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
    while (end > 0 && vanishes(text[end - 1])) end--;
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

/** The opportunities with those where the paragraph's language allows a word to be divided, in order. */
export function withHyphens(shaped: ShapedParagraph, opportunities: readonly Opportunity[], paragraph: ParagraphProperties): Opportunity[] {
  const limits = paragraph.hyphenation;
  if (!limits) return [...opportunities];
  const points: number[] = [];
  for (const look of languageRanges(shaped)) points.push(...hyphenPoints(shaped.text, look.start, look.end, look.language, limits));
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
