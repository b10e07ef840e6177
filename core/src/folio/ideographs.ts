/** Ideographs, kana, Hangul and their full-width punctuation, by UTF-16 unit (Unicode blocks from U+2E80). */
export const isIdeographic = (unit: number): boolean =>
  (unit >= 0x2e80 && unit <= 0x9fff) ||
  (unit >= 0xac00 && unit <= 0xd7af) ||
  (unit >= 0xf900 && unit <= 0xfaff) ||
  (unit >= 0xff00 && unit <= 0xffef) ||
  (unit >= 0xd840 && unit <= 0xd87f);
