import { describe, expect, test } from '@jest/globals';
import { hyphenPoints } from '../src/compose/hyphenate.ts';
import { hyphenationPatterns, lacksHyphenation, loadHyphenation } from '../src/compose/hyphenationPatterns.ts';
import { spokenLanguages } from '../src/compose/spokenLanguages.ts';
import { sample } from './support/samples.ts';

const LIMITS = { before: 2, after: 2, inARow: 0, capitals: true };

describe('hyphenation by language', () => {
  test('text is never set without the patterns of its language unseen', async () => {
    expect(lacksHyphenation(['en', 'ja'])).toBe(true);
    expect(() => hyphenationPatterns('pt-BR')).toThrow('The hyphenation of pt was not loaded before text was set.');
    await loadHyphenation(['pt-BR']);
    expect(lacksHyphenation(['pt'])).toBe(false);
    expect(lacksHyphenation(['pt', 'nl'])).toBe(true);
    expect(hyphenationPatterns('tlh')).toBeNull();
  });

  test('a region without patterns of its own has those of its language', async () => {
    await loadHyphenation(['de-AT']);
    expect(lacksHyphenation(['de', 'de-CH'])).toBe(false);
    expect(hyphenPoints('Sternwarte', 0, 10, 'de-AT', LIMITS)).toEqual([5, 8]);
  });

  test('passages, styles and the document itself say which languages are spoken', async () => {
    const folio = (await sample('marrowby-almanac')).folio;
    const languages = spokenLanguages(folio);
    expect(languages.has(folio.head.metadata.language)).toBe(true);
    const id = Object.keys(folio.stories)[0]!;
    const story = folio.stories[id]!;
    const block = Object.values(story.blocks).find((b) => b.kind === 'paragraph')!;
    const marked = {
      ...story,
      blocks: {
        ...story.blocks,
        [block.id]: { ...block, content: [{ type: 'span' as const, text: 'Ave', overrides: { language: 'la' } }] },
      },
    } as typeof story;
    expect(spokenLanguages({ ...folio, stories: { ...folio.stories, [id]: marked } }).has('la')).toBe(true);
    expect(languages.has('la')).toBe(false);
  });
});
