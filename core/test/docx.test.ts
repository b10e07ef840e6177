import { beforeAll, describe, expect, test } from '@jest/globals';
import type { Sample } from '@elastic-folio/demo';
import { subjectKey } from '../src/ledger/index.ts';
import { make, SAMPLES, sample } from './support/samples.ts';
import { faultsOfDocx } from './support/wordSchema.ts';

const SMALL = { resolution: 36 };
const samples = new Map<string, Sample>();
beforeAll(async () => {
  for (const id of SAMPLES) samples.set(id, await sample(id));
});

describe.each(SAMPLES)('%s as a text document', (id) => {
  test('keeps the rules of the standard, and is read back as its ledger says', async () => {
    const made = await make(samples.get(id)!, 'docx', SMALL);
    expect(faultsOfDocx(await made.read('document.docx'))).toEqual([]);
    expect(made.ledger.filter((e) => e.check === 'contradicted').map((e) => [subjectKey(e.subject), e.evidence])).toEqual([]);
  });
});
