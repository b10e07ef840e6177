import type { Font } from 'fontkit';

/** What a web font in a result says of itself, read by a library that had no part in making it. */
export interface WebFont {
  postscriptName: string;
  /** Width of a text in em, kerning included. */
  width(text: string): number;
  /** Ascent and descent in em, by the rule browsers use. */
  ascent: number;
  descent: number;
}

export async function readWebFont(bytes: Uint8Array): Promise<WebFont | null> {
  // Loaded where a result is read back, not by whoever lists the formats.
  const fontkit = await import('fontkit');
  try {
    const font = fontkit.create(Buffer.from(bytes)) as Font;
    const os2 = (font as unknown as { 'OS/2': { fsSelection: { useTypoMetrics: boolean }; typoAscender: number; typoDescender: number } })[
      'OS/2'
    ];
    const hhea = (font as unknown as { hhea: { ascent: number; descent: number } }).hhea;
    const typo = os2?.fsSelection?.useTypoMetrics;
    return {
      postscriptName: font.postscriptName,
      width: (text) => font.layout(text).advanceWidth / font.unitsPerEm,
      ascent: (typo ? os2.typoAscender : hhea.ascent) / font.unitsPerEm,
      descent: -(typo ? os2.typoDescender : hhea.descent) / font.unitsPerEm,
    };
  } catch {
    return null;
  }
}
