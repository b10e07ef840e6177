import { lightAndDark } from '../almanac/sunAndMoon.ts';
import type { ReadableTexts } from './edition.ts';

/** The table of light and dark in another language: its heads, its days, and the words in its cells; numbers stay as they are. */
export function lightAndDarkIn(
  heads: readonly string[],
  dayOf: (day: string, month: string) => string,
  words: Readonly<Record<string, string>>,
): ReadableTexts {
  const cell = (row: number, column: number): string => `light-table-${row}-${column}-text`;
  const texts: Record<string, string> = Object.fromEntries(heads.map((head, i) => [cell(1, i + 1), head]));
  lightAndDark().forEach((cells, r) => {
    const [day, month] = cells[0]!.split(' ');
    texts[cell(r + 2, 1)] = dayOf(day!, words[month!]!);
    cells.forEach((said, c) => {
      if (words[said] !== undefined) texts[cell(r + 2, c + 1)] = words[said];
    });
  });
  return texts;
}
