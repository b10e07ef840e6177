import { beforeAll, describe, expect, test } from '@jest/globals';
import type { Sample } from '@elastic-folio/demo';
import { inEdition } from '../../src/language/index.ts';
import { against, make, sample } from '../support/samples.ts';
import { ofToday } from '../support/ofToday.ts';

let almanac: Sample;
beforeAll(async () => {
  almanac = await sample('marrowby-almanac');
});

/** Outputs that are looked at: pages, running text, slides. */
const OUTPUTS = ['html', 'pdf', 'epub', 'epub-fixed', 'article', 'docx', 'pptx', 'odt', 'odp'];

describe.each(['de', 'ja'] as const)('the Almanac in “%s”', (language) => {
  test.each(ofToday(OUTPUTS, 2, (id) => id))(
    'is made as %s, and nothing that it says of itself is contradicted when it is read back',
    async (output) => {
      const made = await make(almanac, output, {}, inEdition(almanac.folio, language));
      expect(against(made)).toEqual([]);
      const { check } = made.ledger.find((e) => e.subject.kind === 'document' && e.subject.aspect === 'language')!;
      expect(check).not.toBe('contradicted');
      expect(made.ledger.filter((e) => e.check === 'confirmed').length).toBeGreaterThan(100);
    },
  );
});
