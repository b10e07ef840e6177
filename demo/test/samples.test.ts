import { beforeAll, describe, expect, test } from '@jest/globals';
import { heldItems, incoherences, pagesOf, paragraphsOf, readText } from '@elastic-folio/core';
import { findingsOf } from '@elastic-folio/core/check';
import { codesIn, inEdition } from '@elastic-folio/core/language';
import { Composer, loadFonts } from '@elastic-folio/core/compose';
import type { Composition } from '@elastic-folio/core/compose';
import { shippedFontSource } from '@elastic-folio/core/node';
import { samples } from '../src/index.ts';
import type { Sample } from '../src/index.ts';

let all: { sample: Sample; composition: Composition; codes: string[] }[];
beforeAll(async () => {
  all = [];
  for (const sample of await samples()) {
    const fonts = await loadFonts(sample.folio.head, [await shippedFontSource()]);
    const composition = new Composer(fonts).compose(sample.folio);
    all.push({ sample, composition, codes: findingsOf(sample.folio, composition, fonts).map((f) => f.code) });
  }
});

describe('the sample documents', () => {
  test('are coherent, and every text of theirs fits and has its glyphs', () => {
    for (const { sample, composition } of all) {
      expect(incoherences(sample.folio)).toEqual([]);
      for (const [id, story] of composition.stories) expect([id, story.overflow, story.missingGlyphs]).toEqual([id, null, []]);
    }
  });

  test('show what they are there to show', () => {
    const codes = Object.fromEntries(all.map((a) => [a.sample.folio.head.id, a.codes]));
    expect(codes['open-dome-night']).toContain('style.handFormatted');
    expect(codes['marrowby-almanac']).toContain('layer.hidden');
    const almanac = all.find((a) => a.sample.folio.head.id === 'marrowby-almanac')!.sample.folio;
    expect(pagesOf(almanac)).toHaveLength(16);
    const items = Object.values(almanac.spreads).flatMap((s) => Object.values(s.items));
    expect(items.some((i) => i.opacity < 1)).toBe(true);
    expect(items.some((i) => i.blend !== 'normal')).toBe(true);
    expect(items.some((i) => i.transform[1] !== 0)).toBe(true);
    expect(Object.values(almanac.stories).some((s) => s.frames.length > 2)).toBe(true);
    expect(Object.values(almanac.head.swatches).some((s) => s.colour.space === 'spot')).toBe(true);
    expect(Object.values(almanac.stories).some((s) => [...paragraphsOf(s)].some((p) => p.character?.language === 'de'))).toBe(true);
  });

  test('every picture has an alt text or is decoration; every story but decorations is on the reading path', () => {
    for (const { sample } of all) {
      const { folio } = sample;
      const { decorations, strands } = folio.head.structure;
      const read = new Set(strands.flatMap((s) => s.entries.map((e) => e.item)));
      for (const spread of Object.values(folio.spreads)) {
        const held = heldItems(spread);
        for (const item of Object.values(spread.items)) {
          if (item.kind === 'picture') expect([item.id, !!item.alt || decorations.includes(item.id)]).toEqual([item.id, true]);
          const onHidden = folio.head.layers[item.layer]?.visible === false;
          if (item.kind === 'textFrame' && !onHidden)
            // What stands on a card is read with its switcher.
            expect([item.id, read.has(held.get(item.id) ?? item.id) || decorations.includes(item.id)]).toEqual([item.id, true]);
        }
      }
    }
  });

  test('the running text uses typographer’s quotes and apostrophes, and no doubled spaces', () => {
    for (const { sample } of all)
      for (const story of Object.values(sample.folio.stories))
        for (const paragraph of paragraphsOf(story)) expect(readText(paragraph, () => 'x')).not.toMatch(/["']| {2}|--|\.\.\./);
  });

  test('name nothing of the world outside: every address is one that can never exist (RFC 2606)', () => {
    for (const { sample } of all)
      for (const story of Object.values(sample.folio.stories))
        for (const link of Object.values(story.links))
          if (link.destination.to === 'address') expect(link.destination.href).toMatch(/^(https:\/\/|mailto:[a-z]+@)marrowby\.example/);
  });

  test.each([
    ['open-dome-night', 'de'],
    ['open-dome-night', 'ja'],
    ['marrowby-almanac', 'de'],
  ])('%s in %s is translated paragraph by paragraph, fits its frames and has all its glyphs', async (id, language) => {
    const { folio } = all.find((a) => a.sample.folio.head.id === id)!.sample;
    const { units } = folio.editions[language]!;
    const paragraphs = new Map(Object.values(folio.stories).flatMap((s) => [...paragraphsOf(s)].map((p) => [p.id, { story: s.id, p }])));
    for (const [key, { segments }] of Object.entries(units)) {
      // Codes, and with them links and what stands in the line, are those of the source.
      for (const { source, target } of segments) expect([key, codesIn(target!).sort()]).toEqual([key, codesIn(source).sort()]);
    }
    if (id === 'open-dome-night') expect(Object.keys(units).sort()).toEqual([...paragraphs.keys()].sort());
    else expect([...paragraphs.keys()].filter((k) => /^(dome-feature|night-words)/.test(k) && !units[k])).toEqual([]);
    const translated = inEdition(folio, language);
    const composition = new Composer(await loadFonts(translated.head, [await shippedFontSource()])).compose(translated);
    for (const [story, set] of composition.stories) expect([story, set.overflow, set.missingGlyphs]).toEqual([story, null, []]);
  });

  test('are the same each time they are built', async () => {
    const again = await samples();
    again.forEach((s, i) => expect(JSON.stringify(s.folio) === JSON.stringify(all[i]!.sample.folio)).toBe(true));
  });
});
