import { describe, expect, test } from '@jest/globals';
import { mkdtemp, readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync } from 'node:zlib';
import { shippedFontSource } from '@elastic-folio/core/node';
import { packedFont, packFonts } from '../src/packedFonts.ts';

describe('fonts packed by the build', () => {
  test('each is the font that ships, packed once; one of another version is not taken for it', async () => {
    const root = await mkdtemp(join(tmpdir(), 'packed-'));
    try {
      const source = await shippedFontSource();
      const font = await source.bytes('shipped-work-sans-400regular');
      expect(await packedFont(root, font)).toBeNull();
      await packFonts(root);
      const folder = join(root, 'dist', 'fonts');
      const times = async () => Promise.all((await readdir(folder)).sort().map(async (f) => (await stat(join(folder, f))).mtimeMs));
      const made = await times();
      expect(made.length).toBeGreaterThan(20);
      const packed = (await packedFont(root, font))!;
      expect(packed.length).toBeLessThan(font.length / 2);
      expect(Buffer.compare(brotliDecompressSync(packed), font)).toBe(0);
      const newer = font.slice();
      newer[newer.length - 1]! ^= 1;
      expect(await packedFont(root, newer)).toBeNull();
      await packFonts(root);
      expect(await times()).toEqual(made);
    } finally {
      await rm(root, { recursive: true, force: true });
    }
  });
});
