import { describe, expect, test } from '@jest/globals';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { deflateSync } from 'node:zlib';
import * as fontkit from 'fontkit';
import fc from 'fast-check';
import wawoff from 'wawoff2';
import { readFontFile } from '../src/read/index.ts';
import { FolioError } from '../src/ports/ports.ts';

const require = createRequire(import.meta.url);
const shipped = async (name: string, folder: string, file: string): Promise<Buffer> =>
  readFile(join(dirname(require.resolve(`@expo-google-fonts/${name}/package.json`)), folder, `${file}.ttf`));
const regular = await shipped('work-sans', '400Regular', 'WorkSans_400Regular');
const boldItalic = await shipped('tinos', '700Bold_Italic', 'Tinos_700Bold_Italic');
const woff2 = Buffer.from(await wawoff.compress(regular));

/** WOFF 1.0 as the W3C describes it (section 3 and 4), written here by hand: header, directory, tables packed by zlib. */
function woffOf(sfnt: Buffer, packed = true): Buffer {
  const count = sfnt.readUInt16BE(4);
  const header = Buffer.alloc(44 + count * 20);
  header.write('wOFF', 0, 'latin1');
  sfnt.copy(header, 4, 0, 4);
  header.writeUInt16BE(count, 12);
  header.writeUInt32BE(sfnt.length, 16);
  const tables: Buffer[] = [];
  let at = header.length;
  for (let i = 0; i < count; i++) {
    const entry = 12 + i * 16;
    const data = sfnt.subarray(sfnt.readUInt32BE(entry + 8), sfnt.readUInt32BE(entry + 8) + sfnt.readUInt32BE(entry + 12));
    const small = packed ? deflateSync(data) : data;
    const written = small.length < data.length ? small : data;
    sfnt.copy(header, 44 + i * 20, entry, entry + 4);
    header.writeUInt32BE(at, 44 + i * 20 + 4);
    header.writeUInt32BE(written.length, 44 + i * 20 + 8);
    header.writeUInt32BE(data.length, 44 + i * 20 + 12);
    header.writeUInt32BE(sfnt.readUInt32BE(entry + 4), 44 + i * 20 + 16);
    const padded = Buffer.alloc((written.length + 3) & ~3);
    written.copy(padded);
    tables.push(padded);
    at += padded.length;
  }
  const out = Buffer.concat([header, ...tables]);
  out.writeUInt32BE(out.length, 8);
  return out;
}
const glyphsOf = (bytes: Uint8Array): string[] => {
  const font = fontkit.create(Buffer.from(bytes)) as fontkit.Font;
  return font.layout('Marrowby, 36').glyphs.map((g) => `${g.id} ${g.advanceWidth} ${g.path.toSVG()}`);
};

describe('font files that are added', () => {
  test('a TrueType file tells its family, weight and slope', async () => {
    expect(await readFontFile(regular)).toMatchObject({
      family: 'Work Sans',
      weight: 400,
      style: 'normal',
      fullName: 'Work Sans Regular',
      mayEmbed: true,
    });
    expect(await readFontFile(boldItalic)).toMatchObject({ family: 'Tinos', weight: 700, style: 'italic' });
  });

  test.each([
    ['WOFF', woffOf(regular)],
    ['WOFF with tables as they are', woffOf(regular, false)],
    ['WOFF2', woff2],
  ])('%s comes out as the font that went in (fontkit reads both)', async (_, file) => {
    const facts = await readFontFile(file);
    expect(facts).toMatchObject({ family: 'Work Sans', weight: 400, style: 'normal' });
    expect(glyphsOf(facts.bytes)).toEqual(glyphsOf(regular));
    // fontkit also reads WOFF itself: our hand-written file is one.
    expect(glyphsOf(file)).toEqual(glyphsOf(regular));
  });

  test('a font that may not be embedded says so (OpenType, OS/2 fsType bit 1)', async () => {
    const file = Buffer.from(regular);
    const count = file.readUInt16BE(4);
    for (let i = 0; i < count; i++)
      if (file.toString('latin1', 12 + i * 16, 16 + i * 16) === 'OS/2') file.writeUInt16BE(2, file.readUInt32BE(12 + i * 16 + 8) + 8);
    expect((await readFontFile(file)).mayEmbed).toBe(false);
  });

  test.each([
    ['text', Buffer.from('this is no font, it is a letter')],
    ['nothing', Buffer.alloc(0)],
    ['a collection', Buffer.from('ttcf0000000000000000000000')],
    ['half a font', regular.subarray(0, 2000)],
    ['half a WOFF', woffOf(regular).subarray(0, 3000)],
    ['a WOFF header alone', woffOf(regular).subarray(0, 20)],
    ['half a WOFF2', woff2.subarray(0, 900)],
  ])('%s is refused with a sentence', async (_, file) => {
    await expect(readFontFile(file)).rejects.toThrow(FolioError);
    await expect(readFontFile(file)).rejects.toThrow(/^.{10,}\.$/);
  });

  test('damaged WOFF files are read or refused, never more', async () => {
    const good = woffOf(boldItalic);
    await fc.assert(
      fc.asyncProperty(fc.nat(good.length - 1), fc.nat(255), async (at, byte) => {
        const file = Buffer.from(good);
        file[at] = byte;
        const outcome = await readFontFile(file).then(
          () => 'read',
          (e: unknown) => (e instanceof FolioError ? 'refused' : e),
        );
        expect(['read', 'refused']).toContain(outcome);
      }),
      { numRuns: 60 },
    );
  });
});
