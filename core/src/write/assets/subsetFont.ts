import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { createHash } from 'node:crypto';
import type { FontFace } from '../../compose/fontFace.ts';
import type { DerivedStore } from '../../ports/ports.ts';
import { packWoff2 } from './packWoff2.ts';

type Exports = Record<string, (...args: number[]) => number> & { memory: WebAssembly.Memory };
let module: Promise<WebAssembly.Module> | undefined;

const loadModule = (): Promise<WebAssembly.Module> =>
  (module ??= readFile(createRequire(import.meta.url).resolve('harfbuzzjs/dist/harfbuzz-subset.wasm')).then((bytes) =>
    WebAssembly.compile(bytes),
  ));

const LAYOUT_FEATURES = 6;

/**
 * The part of a font that some characters need, with all its layout features, by hb-subset. A fresh
 * instance each time: a font that breaks the subsetter cannot harm the next.
 */
async function subset(bytes: Uint8Array, characters: Iterable<number>): Promise<Uint8Array> {
  const hb = (await WebAssembly.instantiate(await loadModule(), {})).exports as unknown as Exports;
  hb['_initialize']?.();
  const at = hb['malloc']!(bytes.length);
  new Uint8Array(hb.memory.buffer).set(bytes, at);
  const blob = hb['hb_blob_create']!(at, bytes.length, 2, 0, 0);
  const face = hb['hb_face_create']!(blob, 0);
  const input = hb['hb_subset_input_create_or_fail']!();
  const unicodes = hb['hb_subset_input_unicode_set']!(input);
  for (const c of characters) hb['hb_set_add']!(unicodes, c);
  const features = hb['hb_subset_input_set']!(input, LAYOUT_FEATURES);
  hb['hb_set_clear']!(features);
  hb['hb_set_invert']!(features);
  const result = hb['hb_subset_or_fail']!(face, input);
  if (!result) throw new Error('the font could not be reduced to the characters used');
  const out = hb['hb_face_reference_blob']!(result);
  const [offset, length] = [hb['hb_blob_get_data']!(out, 0), hb['hb_blob_get_length']!(out)];
  return new Uint8Array(hb.memory.buffer.slice(offset, offset + length));
}

/** A face reduced to some characters, as WOFF2; kept by the hash of both. A font that forbids it stays whole. */
export async function webFont(face: FontFace, characters: ReadonlySet<number>, derived: DerivedStore): Promise<Uint8Array> {
  const wanted = [...characters, 0x20, 0xa0].sort((a, b) => a - b);
  const key = `woff2/1/${createHash('sha256').update(face.bytes).digest('hex')}/${face.maySubset ? wanted.join(',') : 'whole'}`;
  const kept = await derived.get(key);
  if (kept) return kept;
  const reduced = face.maySubset ? await subset(face.bytes, wanted) : face.bytes;
  const packed = await packWoff2(reduced);
  await derived.put(key, packed);
  return packed;
}
