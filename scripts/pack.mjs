// Packs files as browsers take them (Brotli, RFC 7932), as small as it gets: once when the program is built, not for each answer.
import { existsSync } from 'node:fs';
import { mkdir, readdir, readFile, stat, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';

const brotli = promisify(brotliCompress);
const LEAST = 1024;

async function pack(from, to) {
  if (existsSync(to)) return;
  const bytes = await readFile(from);
  const packed = await brotli(bytes, {
    params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY, [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length },
  });
  if (packed.length < bytes.length) await writeFile(to, packed);
}

/** Packs what the web application consists of, beside its files. */
export async function packAssets(folder) {
  const files = (await readdir(folder)).filter((f) => /\.(m?js|css|wasm|svg)$/.test(f)).map((f) => join(folder, f));
  const large = [];
  for (const file of files) if ((await stat(file)).size >= LEAST) large.push(file);
  await Promise.all(large.map((file) => pack(file, `${file}.br`)));
}

/** Fonts over this size are of scripts that few documents have: they are packed as they are sent. */
const LARGEST_FONT = 500_000;

/** Packs the fonts that come with the program. Packages do not change: what is there stays. */
export async function packFonts(packages, folder) {
  await mkdir(folder, { recursive: true });
  const fonts = [];
  for (const entry of await readdir(packages, { recursive: true }))
    if (/(400|600|700)[A-Za-z_]*\.ttf$/.test(entry) && (await stat(join(packages, entry))).size <= LARGEST_FONT)
      fonts.push(join(packages, entry));
  await Promise.all(fonts.map((file) => pack(file, join(folder, `${basename(file)}.br`))));
}
