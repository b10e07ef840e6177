import { describe, expect, test } from '@jest/globals';
import { subjectsOf } from '../../src/ledger/index.ts';
import { subjectKey } from '../../src/ledger/index.ts';
import { against, make, readBack, sample, writeOnly } from '../support/samples.ts';
import { FORMATS } from './support/exchanged.ts';

const DE = { target: 'de', pretranslation: 'none', pagesToSee: false };

describe.each(FORMATS)('the ledger of %s', (format) => {
  test('has an entry for everything; texts are confirmed by reading the file back, all else stays', async () => {
    const s = await sample('open-dome-night');
    const made = await make(s, format, { ...DE, targets: 'copies' });
    expect(against(made)).toEqual([]);
    expect(made.ledger.map((e) => subjectKey(e.subject))).toEqual([...subjectsOf(s.folio)].map((a) => subjectKey(a.subject)));
    const texts = made.ledger.filter((e) => e.subject.kind === 'paragraph' && e.subject.aspect === 'text');
    expect(texts.filter((e) => e.outcome === 'kept').every((e) => e.check === 'confirmed')).toBe(true);
    expect(texts.filter((e) => e.outcome === 'kept').length).toBeGreaterThan(8);
    expect(made.ledger.filter((e) => e.subject.aspect === 'place').every((e) => e.outcome === 'excluded')).toBe(true);
    expect(made.paths).toEqual(['report.html', expect.stringMatching(/^texts\.de\.[a-z]+$/)]);
  });
});

// What is inside packages is damaged in the tests of their readers; here in formats that are text.
test.each(['xliff-1.2', 'xliff-2.1', 'po', 'csv', 'xml', 'tmx'] as const)(
  'a text of %s that is another is told at its paragraph, and no other',
  async (format) => {
    const s = await sample('open-dome-night');
    const settings = { ...DE, targets: 'copies' };
    const files = await writeOnly(s, format, settings, s.folio);
    const [path, bytes] = [...files].find(([p]) => p.startsWith('texts.'))!;
    const damaged = new Map([[path, new TextEncoder().encode(new TextDecoder().decode(bytes).replace('What to bring', 'What to take'))]]);
    const wrong = (await readBack(s, format, damaged, settings)).filter((e) => !e.agrees).map((e) => subjectKey(e.subject));
    expect(wrong).toEqual(['paragraph:bring-text-1:text']);
  },
);

test('a report says what there is to do, what stays and why; pages and pictures go along where wanted', async () => {
  const s = await sample('open-dome-night');
  const files = await writeOnly(s, 'xliff-2.1', { target: 'de', pretranslation: 'none', pictures: true, altTexts: 'out' }, s.folio);
  expect([...files.keys()].filter((p) => !p.startsWith('pictures/'))).toEqual(['texts.de.xlf', 'report.html', 'pages.pdf']);
  expect([...files.keys()].some((p) => p.startsWith('pictures/'))).toBe(true);
  const report = new TextDecoder().decode(files.get('report.html'));
  expect(report).toContain('alt texts');
  expect(report).toMatch(/<td>new<\/td><td class="n">\d/);
  await expect(writeOnly(s, 'csv', { target: 'en' }, s.folio)).rejects.toThrow('in “en” already');
  await expect(writeOnly(s, 'csv', { target: 'de', styles: 'List', pages: '2' }, s.folio)).rejects.toThrow('pages 1 to 1');
});
