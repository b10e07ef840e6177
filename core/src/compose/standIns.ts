/** Families that ship with the program to stand in for those that documents from elsewhere name. */
export const STAND_IN = { sans: 'Arimo', serif: 'Tinos', mono: 'Cousine' } as const;

/**
 * Faces that are as wide, letter by letter, as the ones they stand in for (as their makers say: Arimo, Tinos, Cousine and
 * Carlito were drawn for that); and faces of the same kind for other well-known names.
 */
const KNOWN: [RegExp, string][] = [
  [/^(calibri|carlito)\b/i, 'Carlito'],
  [/mono\b|courier|consolas|monaco|menlo|typewriter|\bcode\b|terminal|lucida console/i, STAND_IN.mono],
  [
    /sans|arial|helvetica|verdana|tahoma|segoe|trebuchet|univers|frutiger|futura|gothic|corbel|candara|albany|roboto|geneva|lucida grande/i,
    STAND_IN.sans,
  ],
  [
    /serif|times|roman|georgia|garamond|palatino|book|cambria|schola|termes|thorndale|minion|caslon|baskerville|constantia/i,
    STAND_IN.serif,
  ],
];

/** The family that stands in for one that nobody has: the document's own choice, then by its name; undefined where nothing is known. */
export const standInFor = (family: string, chosen: Readonly<Record<string, string>>): string | undefined =>
  chosen[family.toLowerCase()] ?? KNOWN.find(([pattern]) => pattern.test(family))?.[1];
