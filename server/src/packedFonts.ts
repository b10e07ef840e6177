import { createHash } from 'node:crypto';
import { access, mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import { shippedFontSource } from '@elastic-folio/core/node';

const brotli = promisify(brotliCompress);
/** Larger fonts are of scripts that few documents have, and would take long: they are packed as they are sent. */
const LARGEST = 500_000;

/** Named for what is in it: another version of a font has another name. `root`: the folder of the program. */
const fileOf = (root: string, font: Uint8Array): string =>
  join(root, 'dist', 'fonts', `${createHash('sha256').update(font).digest('hex')}.br`);

/** A font that comes with the program, packed (Brotli, RFC 7932) when that was built; null where it was not. */
export const packedFont = (root: string, font: Uint8Array): Promise<Buffer | null> => readFile(fileOf(root, font)).catch(() => null);

/** Packs the fonts that come with the program as small as it gets, once. */
export async function packFonts(root: string): Promise<void> {
  await mkdir(join(root, 'dist', 'fonts'), { recursive: true });
  const source = await shippedFontSource();
  const pack = async (key: string): Promise<void> => {
    const font = await source.bytes(key);
    const file = fileOf(root, font);
    const isThere = await access(file).then(
      () => true,
      () => false,
    );
    if (isThere || font.length > LARGEST) return;
    await writeFile(file, await brotli(font, { params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY } }));
  };
  await Promise.all(source.list().map(({ key }) => pack(key)));
}
