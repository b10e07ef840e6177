import { describe, expect, test } from '@jest/globals';
import { Composer } from '../src/compose/compose.ts';
import { loadFonts } from '../src/compose/fontSet.ts';
import type { FontSet } from '../src/compose/fontSet.ts';
import { spokenLanguages } from '../src/compose/spokenLanguages.ts';
import type { Composition } from '../src/compose/marks.ts';
import type { Folio } from '../src/folio/folio.ts';
import { shippedFontSource } from '../src/ports/shippedFonts.ts';
import { inEdition } from '../src/language/inEdition.ts';
import { sample } from './support/samples.ts';
import { ofToday } from './support/ofToday.ts';

const almanac = async (): Promise<Folio> => (await sample('marrowby-almanac')).folio;

/** Sets a document with the faces that its text asks for, as a window does: those that are not there are loaded, and it is set anew. */
async function setAsAsked(folio: Folio): Promise<{ composition: Composition; fonts: FontSet; rounds: number }> {
  const faces = new Set<string>();
  const sources = [await shippedFontSource()];
  for (let rounds = 1; ; rounds++) {
    const fonts = await loadFonts(folio.head, sources, { faces, languages: spokenLanguages(folio) });
    const composition = new Composer(fonts).compose(folio);
    if (!fonts.awaited.size) return { composition, fonts, rounds };
    for (const key of fonts.awaited) faces.add(key);
  }
}
const linesOf = (composition: Composition): unknown =>
  [...composition.frames].map(([id, frame]) => [id, frame.lines.map((l) => [l.start, l.end, l.baseline, l.ascent, l.descent])]);

describe('what text is set with comes when it is asked for', () => {
  test.each(ofToday([null, 'de', 'ja'], 1))('the result is that of everything loaded at once (%s)', async (language) => {
    const folio = language === null ? await almanac() : inEdition(await almanac(), language);
    const { composition, fonts, rounds } = await setAsAsked(folio);
    const all = await loadFonts(folio.head, [await shippedFontSource()]);
    const whole = new Composer(all).compose(folio);
    expect(rounds).toBeGreaterThan(1);
    // Japanese text has signs for which every face is looked through.
    if (language !== 'ja') expect(fonts.faces.length).toBeLessThan(all.faces.length);
    expect(linesOf(composition)).toEqual(linesOf(whole));
    expect(fonts.asked.map((a) => a.face.key)).toEqual(all.asked.map((a) => a.face.key));
  });

  test('a sign that no loaded face has asks for all that are left', async () => {
    const folio = await almanac();
    const fonts = await loadFonts(folio.head, [await shippedFontSource()], { faces: new Set(), languages: [] });
    expect(fonts.fallback(0x16a0, fonts.faces[0]!)).toBeUndefined();
    const all = await loadFonts(folio.head, [await shippedFontSource()]);
    expect(fonts.faces.length + fonts.awaited.size).toBe(all.faces.length);
  });
});
