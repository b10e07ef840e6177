import type { FontSet } from '../compose/fontSet.ts';
import type { Finding } from './finding.ts';
import { fontReport } from './fontReport.ts';

/** More characters than this are not spelled out. */
const SPELLED = 12;

/** What is wrong with a document's fonts: not there, broken, without letters of its text, not to be carried along. */
export function fontFindings(fonts: FontSet): Finding[] {
  const found: Finding[] = fonts.broken.map(({ family, says }) => ({ code: 'font.broken', says, family }));
  for (const { family, from, by, lent, mayEmbed } of fontReport(fonts)) {
    if (from === 'standIn') found.push({ code: 'font.substituted', says: `${family} is not there; ${by} stands in for it.`, family });
    if (lent.length) {
      const characters = lent.slice(0, SPELLED).map((l) => l.character);
      const more = lent.length > SPELLED ? ` and ${lent.length - SPELLED} more` : '';
      const lenders = [...new Set(lent.map((l) => l.by))].join(', ');
      found.push({
        code: 'glyph.lent',
        says: `${by} has no ${characters.join(' ')}${more}; ${lenders} lends ${lent.length === 1 ? 'it' : 'them'}.`,
        family,
      });
    }
    if (!mayEmbed)
      found.push({
        code: 'font.notToEmbed',
        says: `${by} may not be carried along in files, as its maker says; outputs are set with another font there.`,
        family,
      });
  }
  return found;
}
