import { describe, expect, test } from '@jest/globals';
import { PdfCanvas } from '../src/paint/pdf/pdfCanvas.ts';
import { openFile } from '../src/ledger/pdf/pdfFile.ts';
import { getDocument } from '../src/ledger/pdf/pdfjs.ts';

/** A file of so many pages, each as wide as its number. */
async function pages(count: number): Promise<Uint8Array> {
  const canvas = new PdfCanvas({ title: 'Pages', language: 'en', created: new Date(0) }, {});
  const chunks: Uint8Array[] = [];
  const read = (async () => {
    for await (const chunk of canvas.stream) chunks.push(chunk);
  })();
  for (let n = 1; n <= count; n++) canvas.addPage(n, 100, 0);
  canvas.end();
  await read;
  return new Uint8Array(Buffer.concat(chunks));
}

describe('the page tree (ISO 32000-1, 7.7.3.2)', () => {
  test.each([1, 64, 65, 200])('%i pages are found in their order, by pdf-lib and by pdf.js', async (count) => {
    const bytes = await pages(count);
    const wanted = Array.from({ length: count }, (_, i) => i + 1);
    expect((await openFile(bytes)).getPages().map((p) => p.getWidth())).toEqual(wanted);
    const pdf = await getDocument({ data: bytes.slice(), verbosity: 0 } as never).promise;
    const widths: number[] = [];
    for (let n = 1; n <= pdf.numPages; n++) widths.push((await pdf.getPage(n)).view[2]!);
    expect(widths).toEqual(wanted);
    await pdf.destroy();
  });

  test('no node has more kids than a reader goes through quickly, and each says how many pages are below it', async () => {
    const text = Buffer.from(await pages(200)).toString('latin1');
    const nodes = [...text.matchAll(/\/Type \/Pages\b[\s\S]*?endobj/g)].map((m) => m[0]);
    const kids = nodes.map((n) => /\/Kids \[([^\]]*)\]/.exec(n)![1]!.match(/ 0 R/g)!.length);
    const counts = nodes.map((n) => Number(/\/Count (\d+)/.exec(n)![1]));
    expect(Math.max(...kids)).toBeLessThanOrEqual(64 + 3);
    expect(counts.sort((a, b) => b - a)).toEqual([200, 64, 64, 8]);
  });
});
