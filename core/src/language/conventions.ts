import type { Conventions, TextPart } from '../folio/edition.ts';
import { withDates } from './dates.ts';
import { primary } from './goesOut.ts';

/** Outer and inner quotation marks by language (Unicode CLDR, `delimiters`; Swiss German from the same). */
const QUOTES: Record<string, readonly [string, string, string, string]> = {
  en: ['“', '”', '‘', '’'],
  de: ['„', '“', '‚', '‘'],
  'de-CH': ['«', '»', '‹', '›'],
  fr: ['«\u202F', '\u202F»', '“', '”'],
  'fr-CH': ['«', '»', '‹', '›'],
  es: ['«', '»', '“', '”'],
  it: ['«', '»', '“', '”'],
  nl: ['‘', '’', '“', '”'],
  pt: ['«', '»', '“', '”'],
  'pt-BR': ['“', '”', '‘', '’'],
  pl: ['„', '”', '«', '»'],
  cs: ['„', '“', '‚', '‘'],
  sv: ['”', '”', '’', '’'],
  da: ['“', '”', '‘', '’'],
  ja: ['「', '」', '『', '』'],
  zh: ['“', '”', '‘', '’'],
};

const quotesOf = (language: string): (typeof QUOTES)[string] | undefined => QUOTES[language] ?? QUOTES[primary(language)];

/** What decimals are marked by (Unicode CLDR, `symbols`). */
export function decimalMark(language: string): string {
  let mark = marks.get(language);
  if (mark === undefined) {
    mark = new Intl.NumberFormat(language).formatToParts(1.5).find((p) => p.type === 'decimal')?.value ?? '.';
    marks.set(language, mark);
  }
  return mark;
}
const marks = new Map<string, string>();

/** A translated text by the habits of its language, as far as asked: quotation marks, decimal marks and dates in words that came over from the source. */
export function byConventions(parts: readonly TextPart[], conventions: Conventions, from: string, to: string): TextPart[] {
  if (!conventions.quotes && !conventions.decimals && !conventions.dates) return [...parts];
  let out = [...parts];
  if (conventions.quotes) out = withQuotes(out, from, to);
  if (conventions.dates) out = withDates(out, from, to);
  if (conventions.decimals) {
    const [was, is] = [decimalMark(from), decimalMark(to)];
    if (was !== is)
      out = out.map((p) =>
        // Times and dates have more than one mark, and four digits before it are a year.
        p.type === 'text' ? { ...p, text: p.text.replace(DECIMAL(was), (_, whole: string, rest: string) => `${whole}${is}${rest}`) } : p,
      );
  }
  return out;
}

const DECIMAL = (mark: string): RegExp => new RegExp(`(?<![\\d.,:])(\\d+)\\${mark}(\\d+)(?![\\d.,:]*\\d)`, 'g');

/** Straight marks, and those of the source’s language, become those of the target; a mark opens after a space and closes before one. */
function withQuotes(parts: readonly TextPart[], from: string, to: string): TextPart[] {
  const [was, is] = [quotesOf(from), quotesOf(to)];
  if (!is) return [...parts];
  const [open, close, innerOpen, innerClose] = is;
  // A mark that both languages have says nothing of which it is: then the text is in the habit of its language already.
  const outer = new Set(['"', ...(was ? [was[0].trim(), was[1].trim()] : [])]);
  const inner = new Set(was ? [was[2]] : []);
  if (to !== from && primary(from) !== primary(to)) {
    const text = parts.map((p) => (p.type === 'text' ? p.text : '')).join('');
    if (open.trim() !== close.trim() && text.includes(open.trim()) && ![...outer].some((o) => o !== close.trim() && text.includes(o)))
      return [...parts];
  }
  let before = ' ';
  return parts.map((p) => {
    if (p.type !== 'text') {
      before = p.type === 'wrap' ? ' ' : before;
      return p;
    }
    let text = '';
    for (const sign of p.text) {
      const opens = /[\s([{\-–—「『«„“]/.test(before);
      if (was && was[0] !== was[1] && (sign === was[0] || sign === was[1])) text += sign === was[0] ? open : close;
      else if (outer.has(sign)) text += opens ? open : close;
      else if (inner.has(sign)) text += innerOpen;
      else if (was && sign === was[3] && was[3] !== '’') text += innerClose;
      else text += sign;
      before = sign;
    }
    return { ...p, text };
  });
}
