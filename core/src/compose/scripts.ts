const SCRIPTS: [RegExp, string][] = [
  [/\p{Script=Latin}/u, 'Latn'],
  [/\p{Script=Greek}/u, 'Grek'],
  [/\p{Script=Cyrillic}/u, 'Cyrl'],
  [/\p{Script=Hiragana}/u, 'Hira'],
  [/\p{Script=Katakana}/u, 'Kana'],
  [/\p{Script=Han}/u, 'Hani'],
  [/\p{Script=Hangul}/u, 'Hang'],
  [/\p{Script=Arabic}/u, 'Arab'],
  [/\p{Script=Hebrew}/u, 'Hebr'],
  [/\p{Script=Thai}/u, 'Thai'],
  [/\p{Script=Devanagari}/u, 'Deva'],
  [/\p{Script=Syriac}/u, 'Syrc'],
  [/\p{Script=Thaana}/u, 'Thaa'],
];
const known = new Map<number, string | undefined>();

/** ISO 15924 code of a character, undefined for common and inherited ones (UAX 24). */
export function scriptOf(codePoint: number): string | undefined {
  if ((codePoint >= 0x41 && codePoint <= 0x5a) || (codePoint >= 0x61 && codePoint <= 0x7a)) return 'Latn';
  if (codePoint < 0x80) return undefined;
  if (!known.has(codePoint)) {
    const c = String.fromCodePoint(codePoint);
    known.set(codePoint, SCRIPTS.find(([re]) => re.test(c))?.[1]);
  }
  return known.get(codePoint);
}

const IDEOGRAPHIC = new Set(['Hani', 'Hira', 'Kana', 'Hang']);
export const isIdeographicScript = (script: string): boolean => IDEOGRAPHIC.has(script);

/** Whether a text may hold anything that is set from right to left: then it is worth asking UAX 9. */
export const mayBeRightToLeft = (text: string): boolean => /[\u0590-\u08FF\u200F\u202B\u202E\u2067\uFB1D-\uFDFF\uFE70-\uFEFF]/.test(text);
