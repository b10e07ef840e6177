import { existsSync } from 'node:fs';
import { beforeAll, describe, expect, test } from '@jest/globals';
import { subjectKey } from '../../src/ledger/index.ts';
import { validateEpub } from '../../src/ledger/book/validateEpub.ts';
import { EPUBCHECK, sayOfEpubcheck } from './epubcheck.ts';
import { make, sample, SAMPLES } from './samples.ts';
import type { Made, SampleId } from './samples.ts';
import { ofToday } from './ofToday.ts';

/** Books of all samples bear out their ledgers and keep the rules of their standard; `more` tests each of them further. */
export function describeBooks(
  output: string,
  settings: Record<string, unknown>,
  more: (id: SampleId, bytes: () => Uint8Array) => void,
): void {
  describe.each(ofToday(SAMPLES, 1))(`${output} of %s`, (id) => {
    let made: Made;
    let bytes: Uint8Array;
    beforeAll(async () => {
      made = await make(await sample(id), output, settings);
      bytes = await made.read('book.epub');
    });
    test('is borne out by reading it back', () => {
      expect(made.ledger.filter((e) => e.check === 'contradicted').map((e) => [subjectKey(e.subject), e.evidence])).toEqual([]);
      expect(made.valid).toBe(true);
    });
    test('keeps the rules of EPUB 3.3, as one checker knows them', async () => {
      expect(await validateEpub(bytes, new Set())).toEqual([]);
    });
    (existsSync(EPUBCHECK) ? test : test.skip)('and those of EPUB 3.2, as another does', async () => {
      expect(await sayOfEpubcheck(bytes)).toMatch(/0 fatals \/ 0 errors \/ 0 warnings/);
    });
    more(id, () => bytes);
  });
}
