// Packs files as browsers take them (Brotli, RFC 7932), as small as it gets: once when the program is built, not for each answer.
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';

const brotli = promisify(brotliCompress);
/** Smaller files gain nothing that their headers do not outweigh. */
const LEAST = 1024;

async function pack(file) {
  const bytes = await readFile(file);
  if (bytes.length < LEAST) return;
  const packed = await brotli(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: constants.BROTLI_MAX_QUALITY } });
  if (packed.length < bytes.length) await writeFile(`${file}.br`, packed);
}

/** Packs what the web application consists of, beside its files. */
export async function packAssets(folder) {
  const files = (await readdir(folder)).filter((f) => /\.(m?js|css|wasm|svg)$/.test(f));
  await Promise.all(files.map((f) => pack(join(folder, f))));
}
