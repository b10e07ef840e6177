import { describe, expect, test } from '@jest/globals';
import { pagesOf } from '../src/index.ts';
import { purposes } from '../src/write/html/purposes.ts';
import { make, sample, SAMPLES } from './support/samples.ts';
import { missingFiles, webFaults } from './support/webFaults.ts';
import { ofToday } from './support/ofToday.ts';

const reads = purposes.questions.find((q) => q.id === 'read')!.answers.map((a) => a.id);

/** Every recipe that the start proposes, with each sample; of long ones some pages, which have everything that the others have. */
describe.each(ofToday(SAMPLES, 1))('%s', (id) => {
  test.each(reads)('read as %s: read back, without a fault, with every file that it names', async (read) => {
    const s = await sample(id);
    const at = reads.indexOf(read);
    const answers = { read, layout: at % 2 ? 'hold' : 'adapt', connection: at % 3 ? 'no' : 'yes', length: at === 1 ? 'long' : 'short' };
    const settings = Object.fromEntries(purposes.settle(answers).map((x) => [x.setting, x.value]));
    const made = await make(s, 'html', { ...settings, ...(pagesOf(s.folio).length > 6 && { pages: '1-6' }) });
    expect(made.ledger.filter((e) => e.check === 'contradicted')).toEqual([]);
    expect(made.valid).toBe(true);
    expect(await webFaults(made)).toEqual([]);
    expect(await missingFiles(made)).toEqual([]);
  });
});
