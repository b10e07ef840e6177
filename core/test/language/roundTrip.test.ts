import { describe, expect, test } from '@jest/globals';
import { without } from '../../src/index.ts';
import type { Folio } from '../../src/index.ts';
import { FAULTS, inEdition } from '../../src/language/index.ts';
import { sample } from '../support/samples.ts';
import { backInto, FORMATS, readBytes, textsOf, withAll } from './support/exchanged.ts';
import { ofToday } from '../support/ofToday.ts';

/** Everything goes out, into a language that writes numbers as English does, so that everything comes back. */
const ALL = { target: 'ja', targets: 'copies', hiddenLayers: 'in', linkTargets: 'in', onlyNumbers: 'in' };

/** A document without what says which language its texts are in. */
function withoutLanguages(folio: Folio): unknown {
  const { metadata, ...head } = without(folio.head, 'listStyles');
  const stories = Object.fromEntries(
    Object.entries(folio.stories).map(([id, story]) => [
      id,
      {
        ...story,
        blocks: Object.fromEntries(
          Object.entries(story.blocks).map(([key, block]) => {
            if (block.kind !== 'paragraph') return [key, block];
            const character = without(block.character ?? {}, 'language');
            const rest = without(block, 'character');
            return [key, Object.keys(character).length ? { ...rest, character } : rest];
          }),
        ),
      },
    ]),
  );
  return { head: { ...head, metadata: { ...metadata, language: '' } }, spreads: folio.spreads, stories };
}

describe.each(['marrowby-almanac', 'observers-handbook'] as const)('%s', (id) => {
  describe.each(ofToday(FORMATS, 3, (id) => id))('%s', (format) => {
    test.each(['paragraphs', 'sentences'] as const)('a copy of the source in %s comes back as the identical document', async (cut) => {
      const whole = await sample(id);
      const s = { ...whole, folio: { ...whole.folio, editions: {} } };
      const { name, bytes } = await textsOf(s, format, { ...ALL, cut });
      const inbound = await readBytes(name, bytes);
      const back = backInto(s.folio, inbound, 'ja');
      expect(back.segments.filter((r) => r.kind !== 'new').map((r) => [r.id, r.kind])).toEqual([]);
      expect(back.segments.flatMap((r) => r.findings.map((f) => [r.id, f.fault, f.says]))).toEqual([]);
      const made = inEdition(withAll(s.folio, back), 'ja');
      expect(made.head.metadata.language).toBe('ja');
      expect(withoutLanguages(made)).toEqual(withoutLanguages(s.folio));
    });
  });
});

describe.each(['de', 'ja'] as const)('the Almanac’s edition in “%s”', (language) => {
  test.each(ofToday(FORMATS, 3, (id) => id))('goes out as %s and comes back as it was', async (format) => {
    const s = await sample('marrowby-almanac');
    const { name, bytes } = await textsOf(s, format, { target: language, pretranslation: 'none' });
    const back = backInto(s.folio, await readBytes(name, bytes), language);
    const said = back.segments.filter((r) => r.kind !== 'empty');
    expect(said.length).toBeGreaterThan(180);
    expect(said.filter((r) => r.kind !== 'unchanged').map((r) => [r.id, r.kind, r.before, r.after])).toEqual([]);
    const wrong = said.flatMap((r) => r.findings.filter((f) => FAULTS[f.fault] === 'wrong' || f.fault === 'sourceChanged'));
    expect(wrong).toEqual([]);
    expect(inEdition(withAll(s.folio, back), language)).toEqual(inEdition(s.folio, language));
  });
});
