import { beforeAll, describe, expect, test } from '@jest/globals';
import type { Sample } from '@elastic-folio/demo';
import { Composer, FontFace, FontSet } from '../../src/compose/index.ts';
import {
  expectedLength,
  fromReadable,
  inEdition,
  inForecast,
  lengthsIn,
  pseudoTranslation,
  standingsOf,
  wordsOf,
} from '../../src/language/index.ts';
import { hasSerifs } from '../../src/compose/serifs.ts';
import { shippedFontSource } from '../../src/ports/node.ts';
import { lettersOf, lettersReport } from '../../src/language/index.ts';
import type { FaceAtHand } from '../../src/language/index.ts';
import { readFile } from 'node:fs/promises';
import { fontsOf, sample } from '../support/samples.ts';

const NONE = { source: 0, target: 0, texts: 0 };

describe('how long texts become', () => {
  test.each([
    // Common practice of the trade, as the issue has it: German is about a third longer than English.
    ['en', 'de', 1.25, 1.4],
    ['de', 'en', 0.7, 0.8],
    ['en', 'ja', 0.4, 0.6],
    ['fr', 'de', 1, 1.15],
    ['en', 'cy', 1.1, 1.3],
    ['en', 'de-AT', 1.25, 1.4],
  ])('from %s into %s, where nothing is known yet', (source, target, least, most) => {
    const { ratio, from } = expectedLength(source, target, NONE);
    expect(from).toBe('practice');
    expect(ratio).toBeGreaterThanOrEqual(least);
    expect(ratio).toBeLessThanOrEqual(most);
  });
  test('what was translated before tells more, once there is enough of it', () => {
    expect(expectedLength('en', 'de', { source: 1000, target: 1150, texts: 20 })).toEqual({ ratio: 1.15, from: 'memory', texts: 20 });
    expect(expectedLength('en', 'de', { source: 100, target: 400, texts: 20 }).from).toBe('practice');
    expect(expectedLength('en', 'de', { source: 1000, target: 90_000, texts: 20 }).ratio).toBe(3);
  });
  test.each([0.5, 0.85, 1.32, 2])('a text of a hundred letters is %d times as long', (ratio) => {
    const source = fromReadable(
      'the wheel turns slowly and the slit comes to rest in front of the old tube before anybody has counted ten',
    );
    const now = wordsOf(pseudoTranslation(source, 'he', ratio)).length / wordsOf(source).length;
    expect(Math.abs(now - ratio)).toBeLessThan(0.08);
  });
});

describe('a forecast', () => {
  let almanac: Sample;
  beforeAll(async () => {
    almanac = await sample('marrowby-almanac');
  });
  test('sets open texts as long as they may become, and leaves what is translated', () => {
    const known = lengthsIn(almanac.folio, 'de');
    expect(known.texts).toBe(210);
    const { ratio, from } = expectedLength('en', 'de', known);
    expect([from, ratio > 1 && ratio < 1.4]).toEqual(['memory', true]);
    const forecast = inForecast(almanac.folio, 'de', ratio);
    const before = new Map(standingsOf(almanac.folio, 'de').map((r) => [r.unit.id, r]));
    let [source, target] = [0, 0];
    for (const { unit, standing } of standingsOf(forecast, 'de')) {
      const was = before.get(unit.id)!.standing;
      if (was?.target && !was.open) expect(standing!.target).toEqual(was.target);
      else if (wordsOf(unit.parts).length > 70)
        [source, target] = [source + wordsOf(unit.parts).length, target + wordsOf(standing!.target!).length];
    }
    expect(Math.abs(target / source - ratio)).toBeLessThan(0.06);
  });
  test('tells before anything is translated what will not fit', async () => {
    const bare = {
      ...almanac.folio,
      editions: { ...almanac.folio.editions, fr: { ...almanac.folio.editions['de']!, language: 'fr', units: {} } },
    };
    const over = async (ratio: number): Promise<number> => {
      const folio = inEdition(inForecast(bare, 'fr', ratio), 'fr');
      const { stories } = new Composer(await fontsOf(folio)).compose(folio);
      return [...stories.values()].filter((s) => s.overflow).length;
    };
    const [short, long] = [await over(0.8), await over(1.6)];
    expect(long).toBeGreaterThan(short + 5);
  });
});

describe('letters of a language', () => {
  test.each([
    // From Unicode’s CLDR 45, read by eye.
    ['de', 'äöüßÄÖÜ„“–'],
    ['fr', 'éèêëàâæçîïôœùûÿÉŒ«»'],
    ['pl', 'ąćęłńóśźżĄŁ'],
    ['tr', 'ğışİç'],
    ['vi', 'ắặẽộ'],
    ['ja', 'あア日本語。'],
    ['ko', '가힣'],
    ['he', 'אבגש'],
  ])('%s has its own', (language, wanted) => {
    expect([...wanted].filter((c) => !lettersOf(language)!.includes(c))).toEqual([]);
  });
  test('the table is what the data of Unicode have today', async () => {
    const { EXEMPLARS } = await import('../../src/language/exemplars.ts');
    for (const language of ['de', 'ja', 'el', 'cy', 'uk']) {
      const file = await readFile(
        new URL(`../../../node_modules/cldr-misc-modern/main/${language}/characters.json`, import.meta.url),
        'utf8',
      );
      const { characters } = (JSON.parse(file) as { main: Record<string, { characters: Record<string, string> }> }).main[language]!;
      expect(`[${EXEMPLARS[language]![0]}]`).toBe(characters['exemplarCharacters']);
    }
  });
  test('a language that nobody has told of is not known', () => {
    expect(lettersOf('tlh')).toBeNull();
  });
});

describe('which fonts lack letters, before any text is there', () => {
  let all: FaceAtHand[];
  const asked = async (language: string) => {
    const { folio } = await sample('open-dome-night');
    const fonts = await fontsOf(folio);
    new Composer(fonts).compose(folio);
    return lettersReport(language, fonts, all);
  };
  beforeAll(async () => {
    const source = await shippedFontSource();
    all = await Promise.all(
      source.list().map(async (f) => ({
        face: new FontFace(f.key, f.family, f.weight, f.style, await source.bytes(f.key)),
        origin: 'shipped' as const,
      })),
    );
  });
  test('German is there in all of them', async () => {
    const { families, known } = await asked('de');
    expect([known, families.length > 1]).toEqual([true, true]);
    expect(families.filter((f) => f.has < f.of).map((f) => [f.family, f.lacks, f.lent])).toEqual([]);
  });
  test('Japanese is not; a family that has it is proposed, with what speaks for it', async () => {
    const { families } = await asked('ja');
    const sans = families.find((f) => f.family === 'Work Sans')!;
    expect(sans.has).toBeLessThan(sans.of / 2);
    expect(sans.lacks.slice(0, 3).join('')).toMatch(/[\u3000-\u9fff]/);
    expect(sans.proposals[0]).toMatchObject({ family: 'Zen Kaku Gothic New', origin: 'shipped' });
    expect(sans.proposals[0]!.says).toContain('no serifs either');
  });
  test('of families with the same letters, the one that looks most alike comes first', async () => {
    // Greek is in faces with serifs and without: the text’s own kind comes first.
    const { families } = await asked('el');
    for (const f of families.filter((x) => x.proposals.length)) {
      const full = f.proposals.filter((p) => p.has === f.of);
      const kind = (says: string[]): boolean => says.some((s) => /as well|either/.test(s));
      if (full.some((p) => kind(p.says))) expect(kind(full[0]!.says)).toBe(true);
    }
  });
  test.each([
    ['Tinos', true],
    ['Source Serif 4', true],
    ['Arimo', false],
    ['Work Sans', false],
    ['Carlito', false],
    ['Zen Kaku Gothic New', false],
    ['Heebo', false],
  ])('serifs are seen by the look of letters: %s, %s', (family, serifs) => {
    const faces = all.filter((f) => f.face.family === family && f.face.style === 'normal');
    expect(faces.length).toBeGreaterThan(0);
    expect(faces.map((f) => hasSerifs(f.face))).toEqual(faces.map(() => serifs));
  });
  test('where nothing is known of a language, that is said', () => {
    expect(lettersReport('tlh', new FontSet([all[0]!.face]), all)).toEqual({ families: [], known: false });
  });
});
