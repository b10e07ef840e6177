export * from './marks.ts';
export { FontFace, FontError } from './fontFace.ts';
export { FontSet, loadFonts, familyForLanguage, wantedFamilies } from './fontSet.ts';
export { lacksHyphenation } from './hyphenationPatterns.ts';
export { spokenLanguages } from './spokenLanguages.ts';
export type { FontOrigin, FontSource } from './fontSet.ts';
export { composedSpread } from './anchored.ts';
export { Composer } from './compose.ts';
export { columnsOf } from './columnFill.ts';
