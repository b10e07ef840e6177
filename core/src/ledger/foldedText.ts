/** Soft hyphens are no text: where a word is divided, formats show the hyphen in ways of their own. */
export const fold = (text: string): string =>
  text
    .replaceAll('\u00AD', '')
    .replace(/[\s\u00A0]+/g, ' ')
    .trim();
/** Without any space: formats part words as they like. */
export const dense = (text: string): string => text.replace(/[\s\u00A0\u00AD]+/g, '');
