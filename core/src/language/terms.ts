import { z } from 'zod';

/** A term in two languages. */
export const Term = z.object({
  source: z.string().trim().min(1).max(300),
  target: z.string().trim().min(1).max(300),
  note: z.string().max(2000).optional(),
});
export type Term = z.infer<typeof Term>;

/** A term where it stands in a text. */
export interface FoundTerm {
  from: number;
  to: number;
  term: Term;
}

/** In small letters, sign by sign: places in it are places in the text (“İ” would become two signs). */
const inLowerCase = (text: string): string =>
  text.replace(/\p{Lu}/gu, (sign) => (sign.toLowerCase().length === sign.length ? sign.toLowerCase() : sign));

/**
 * Terms in a text, as whole words whatever their case, the longest first where they overlap; the plural of English and what German and
 * French add to it is found as well.
 */
export function termsIn(text: string, terms: readonly Term[]): FoundTerm[] {
  const lower = inLowerCase(text);
  const found: FoundTerm[] = [];
  for (const term of [...terms].sort((a, b) => b.source.length - a.source.length)) {
    const wanted = inLowerCase(term.source);
    for (let from = lower.indexOf(wanted); from >= 0; from = lower.indexOf(wanted, from + 1)) {
      const ending = /^(?:’s|'s|es|s|en|n)?(?![\p{L}\p{N}])/u.exec(lower.slice(from + wanted.length));
      if (!ending || /[\p{L}\p{N}]$/u.test(lower.slice(0, from))) continue;
      const to = from + wanted.length + ending[0].length;
      if (found.some((f) => from < f.to && to > f.from)) continue;
      found.push({ from, to, term });
    }
  }
  return found.sort((a, b) => a.from - b.from);
}

/** Terms of a source that its translation does not have. */
export function termsMissing(source: string, target: string, terms: readonly Term[]): Term[] {
  const said = target.toLowerCase();
  const found = new Map(termsIn(source, terms).map(({ term }) => [term.source.toLowerCase(), term]));
  // A term may have several translations: any of them will do.
  const isSaid = (word: string): boolean => terms.some((t) => t.source.toLowerCase() === word && said.includes(t.target.toLowerCase()));
  return [...found].flatMap(([word, term]) => (isSaid(word) ? [] : [term]));
}
