import { EXEMPLARS } from './exemplars.ts';
import { primary } from './goesOut.ts';

/** Set as a hyphen where a font has no sign of its own for it. */
const HYPHEN_THAT_HOLDS = '\u2011';

const made = new Map<string, readonly string[] | null>();

/** The characters that a language is written with, its capitals and marks among them (Unicode’s CLDR); null where it is not known. */
export function lettersOf(language: string): readonly string[] | null {
  const name = primary(language);
  let letters = made.get(name);
  if (letters === undefined) {
    const [words, marks] = EXEMPLARS[name] ?? [];
    const small = words === undefined ? null : members(words);
    const all =
      small &&
      [...small, ...small.flatMap((c) => capital(c, language)), ...members(marks ?? ''), ...'0123456789'].filter(
        (c) => c !== HYPHEN_THAT_HOLDS,
      );
    made.set(name, (letters = all && [...new Set(all)]));
  }
  return letters;
}

/** Capitals of one sign only: “ß” has none that is asked for. */
function capital(letter: string, language: string): string[] {
  const large = letter.toLocaleUpperCase(language);
  return large !== letter && [...large].length === 1 ? [large] : [];
}

/** The code points of a UnicodeSet (UTS 35, part 1, Unicode Sets) that is a plain list: signs, ranges, strings in braces, escapes. */
function members(set: string): string[] {
  const out: string[] = [];
  const signs = [...set];
  for (let i = 0; i < signs.length; i++) {
    const sign = signs[i]!;
    if (/\s/u.test(sign)) continue;
    if (sign === '{') {
      const end = signs.indexOf('}', i);
      out.push(...signs.slice(i + 1, end).filter((c) => c !== '\\'));
      i = end;
    } else if (sign === '\\') out.push(signs[++i]!);
    else if (sign === '-' && out.length && signs[i + 1] !== undefined) {
      const to = signs[++i]!.codePointAt(0)!;
      for (let code = out[out.length - 1]!.codePointAt(0)! + 1; code <= to; code++) out.push(String.fromCodePoint(code));
    } else out.push(sign);
  }
  return out;
}
