import { beforeAll, expect, test } from '@jest/globals';
import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { FontFace, loadFonts } from '../src/compose/index.ts';
import { shippedFontSource } from '../src/ports/node.ts';
import { tinyFolio } from './support/tinyFolio.ts';

let bytes: Uint8Array;
beforeAll(async () => {
  const shipped = await shippedFontSource();
  bytes = await shipped.bytes(shipped.list()[0]!.key);
});
const face = (of: Uint8Array): FontFace => new FontFace('key', 'Family', 400, 'normal', of);

test('faces that are let go of give their memory back', async () => {
  setFlagsFromString('--expose-gc');
  const gc = runInNewContext('gc') as () => void;
  // The memory of WebAssembly, which the collector counts apart from its own.
  const held = async (): Promise<number> => {
    for (let i = 0; i < 3; i++) {
      gc();
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    return process.memoryUsage().external;
  };
  face(bytes);
  const before = await held();
  for (let i = 0; i < 10; i++) {
    for (let n = 0; n < 40; n++) face(bytes).shape('Words', 0, 5, { features: {}, language: 'en', script: 'Latn', direction: 'ltr' });
    await held();
  }
  expect(((await held()) - before) / bytes.length).toBeLessThan(100);
});

test('no more fonts are held than the shaper has room for', () => {
  const large = new Uint8Array(901 * 2 ** 20);
  large.set(bytes);
  expect(() => face(large)).toThrow('more fonts in use at once');
});

test('a file that cannot be read is passed over; a fault of the shaper is none of a file', async () => {
  const shipped = await shippedFontSource();
  const { head } = tinyFolio(['Words']);
  const failing = (error: Error) => ({
    origin: 'document' as const,
    list: () => [{ key: 'own', family: 'Source Serif 4', weight: 400, style: 'normal' as const }],
    bytes: () => Promise.reject(error),
  });
  const { broken } = await loadFonts(head, [failing(new Error('it is gone')), shipped]);
  expect(broken.map((b) => b.says)).toEqual(['Source Serif 4 400 cannot be used: it is gone']);
  await expect(loadFonts(head, [failing(new WebAssembly.RuntimeError('unreachable')), shipped])).rejects.toThrow('unreachable');
});
