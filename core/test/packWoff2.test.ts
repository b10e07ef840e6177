import { expect, test } from '@jest/globals';
import { create } from 'fontkit';
import type { Font } from 'fontkit';
import { shippedFontSource } from '../src/ports/node.ts';
import { packWoff2 } from '../src/write/assets/packWoff2.ts';

test('fonts are packed several at once, each as itself, and one that is none is said without holding up the others', async () => {
  const source = await shippedFontSource();
  const keys = source
    .list()
    .slice(0, 6)
    .map((f) => f.key);
  const whole = await Promise.all(keys.map((key) => source.bytes(key)));
  const [none, ...packed] = await Promise.all([
    packWoff2(new Uint8Array([1, 2, 3])).catch((error: Error) => error.message),
    ...whole.map((bytes) => packWoff2(bytes)),
  ]);
  expect(none).toMatch(/could not be packed/);
  for (const [i, bytes] of packed.entries()) {
    expect(Buffer.from(bytes.subarray(0, 4)).toString()).toBe('wOF2');
    expect(bytes.length).toBeLessThan(whole[i]!.length);
    const [have, want] = [create(Buffer.from(bytes)), create(Buffer.from(whole[i]!))] as [Font, Font];
    expect([have.postscriptName, have.numGlyphs]).toEqual([want.postscriptName, want.numGlyphs]);
  }
});
