import type { TextPart } from '../folio/edition.ts';
import { primary } from './goesOut.ts';

const ACCENTED: Record<string, string> = {
  a: 'á',
  e: 'ë',
  i: 'ï',
  o: 'ö',
  u: 'ü',
  y: 'ÿ',
  c: 'ç',
  n: 'ñ',
  s: 'š',
  z: 'ž',
  A: 'Å',
  E: 'É',
  I: 'Î',
  O: 'Ø',
  U: 'Û',
  Y: 'Ý',
  C: 'Č',
  N: 'Ñ',
  S: 'Š',
  Z: 'Ž',
};
const KANA = 'アイウエオカキクケコサシスセソタチツテトナニヌネノハ';

/** How much longer texts become (common practice, from memory: short ones of English grow most in other languages). */
const growth = (letters: number): number => (letters <= 10 ? 1.6 : letters <= 30 ? 1.45 : letters <= 70 ? 1.35 : 1.3);

/**
 * A text that can be read as its source and shows at a glance what was translated: accents on its letters, as long as other languages
 * become, or as `ratio` says. For Japanese, Chinese and Korean in letters of that kind, and shorter. Codes, numbers and marks at the ends stay.
 */
export function pseudoTranslation(source: readonly TextPart[], language: string, ratio?: number): TextPart[] {
  const group = new RegExp(`[A-Za-z]{1,${Math.max(1, Math.round(1 / (ratio ?? 0.5)))}}`, 'g');
  if (/^(ja|zh|ko)$/.test(primary(language)))
    return source.map((p) =>
      p.type === 'text'
        ? {
            ...p,
            text: p.text.replace(group, (l) => KANA[l.toLowerCase().charCodeAt(0) - 97]!).replace(/(?<=[ア-ン]) (?=[ア-ン])/g, ''),
          }
        : p,
    );
  const letters = source.reduce((n, p) => n + (p.type === 'text' ? p.text.length : 0), 0);
  const more = (ratio ?? growth(letters)) - 1;
  let owed = 0;
  return source.map((p) => {
    if (p.type !== 'text') return p;
    let text = '';
    for (const sign of p.text) {
      owed += more;
      // Where it becomes shorter, letters are left out and words stay.
      if (owed <= -1 && /[a-z]/.test(sign)) {
        owed++;
        continue;
      }
      text += ACCENTED[sign] ?? sign;
      // Vowels are drawn out, so that lines can break where they did.
      if (/[aeiou]/.test(sign))
        while (owed >= 1) {
          text += ACCENTED[sign];
          owed--;
        }
    }
    return { ...p, text };
  });
}
