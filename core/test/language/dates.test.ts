import { describe, expect, test } from '@jest/globals';
import { byConventions, fromReadable, readable } from '../../src/language/index.ts';

const said = (text: string, from: string, to: string): string =>
  readable(byConventions(fromReadable(text), { quotes: false, decimals: false, dates: true }, from, to));

describe('dates in words that came over from the source', () => {
  test.each([
    // How languages write dates: Unicode’s CLDR (long form without the day of the week), read by eye.
    ['Am 6 March 2026 um sieben', 'en', 'de', 'Am 6. März 2026 um sieben'],
    ['Am March 6, 2026', 'en', 'de', 'Am 6. März 2026'],
    ['le 6th March', 'en', 'fr', 'le 6 mars'],
    ['on 6. März 2026', 'de', 'en-GB', 'on 6 March 2026'],
    ['on 6. März 2026', 'de', 'en-US', 'on March 6, 2026'],
    ['el 6 mars 2026', 'fr', 'es', 'el 6 de marzo de 2026'],
    ['6 March 2026に', 'en', 'ja', '2026年3月6日に'],
    // No day of any month, no month, a word that begins like one.
    ['Am 31 February', 'en', 'de', 'Am 31 February'],
    ['Zimmer 6 Marchioness', 'en', 'de', 'Zimmer 6 Marchioness'],
    ['6 Marschierer im März', 'en', 'de', '6 Marschierer im März'],
    ['{1}6 March{/1} 2026', 'en', 'de', '{1}6. März{/1} 2026'],
    ['2026-03-06 und 6.3.2026', 'en', 'de', '2026-03-06 und 6.3.2026'],
  ])('%s, from %s to %s', (text, from, to, wanted) => {
    expect(said(text, from, to)).toBe(wanted);
  });
  test.each([
    // How languages write dates in figures: Unicode’s CLDR (`yMd`), read by eye.
    ['am 6.3.2026', 'de', 'en-GB', 'am 06/03/2026'],
    ['am 6. 3. 2026.', 'de', 'ja', 'am 2026/3/6.'],
    ['le 06/03/2026', 'fr', 'de', 'le 06.03.2026'],
    ['on 3/6/2026, at', 'en-US', 'de', 'on 6.3.2026, at'],
    ['on 06/03/2026', 'en-GB', 'nl', 'on 06-03-2026'],
    ['2026/3/6に', 'ja', 'de', '6.3.2026に'],
    // English without a country: only what can be one date.
    ['13/3/2026 or 3/13/2026 or 3/3/2026', 'en', 'de', '13.3.2026 or 13.3.2026 or 3.3.2026'],
    ['3/4/2026', 'en', 'de', '3/4/2026'],
    // No date; one of a standard; more numbers around it.
    ['31.2.2026 und 2026-03-06', 'de', 'en-GB', '31.2.2026 und 2026-03-06'],
    ['2026-03-06', 'sv', 'de', '2026-03-06'],
    ['1.6.3.2026, 6.3.2026.1, 6.3.26', 'de', 'en-GB', '1.6.3.2026, 6.3.2026.1, 6.3.26'],
  ])('in figures: %s, from %s to %s', (text, from, to, wanted) => {
    expect(said(text, from, to)).toBe(wanted);
  });
  test('nothing changes where nobody asked for it', () => {
    expect(readable(byConventions(fromReadable('6 March 2026'), { quotes: false, decimals: false }, 'en', 'de'))).toBe('6 March 2026');
  });
});
