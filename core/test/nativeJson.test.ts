import { expect, test } from '@jest/globals';

/** What a library puts in the language's place costs every other part of the program. */
test('reading PDF leaves the language as it was', async () => {
  const before = [JSON.parse, JSON.stringify, Array.prototype.push, Function.prototype.toString];
  const { getDocument } = await import('../src/ledger/pdf/pdfjs.ts');
  // The smallest document that ISO 32000-1, 7.5 allows: it has no page, and is read by the worker all the same.
  const data = new TextEncoder().encode(
    '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj 2 0 obj<</Type/Pages/Kids[]/Count 0>>endobj trailer<</Root 1 0 R>>',
  );
  await getDocument({ data, verbosity: 0 }).promise.catch(() => undefined);
  expect([JSON.parse, JSON.stringify, Array.prototype.push, Function.prototype.toString]).toEqual(before);
  for (const own of [JSON.parse, JSON.stringify, Array.prototype.push]) expect(String(own)).toContain('[native code]');
  expect(Object.keys(Array.prototype)).toEqual([]);
});
