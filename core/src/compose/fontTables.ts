/** A font file that cannot be used; its message is for a person. */
export class FontError extends Error {}

/** An unsigned number of two bytes, as all of OpenType's the larger first. */
export const u16 = (b: Uint8Array, at: number): number => (b[at]! << 8) | b[at + 1]!;
const u32 = (b: Uint8Array, at: number): number => ((b[at]! << 24) | (b[at + 1]! << 16) | (b[at + 2]! << 8) | b[at + 3]!) >>> 0;

/** The directory of tables (OpenType 1.9, table directory): a head of 12 bytes, then an entry of 16 for each. */
const HEAD = 12;
const ENTRY = 16;

/** Throws a FontError on a table directory that points outside its file: it must not reach the shaper. */
export function checkTables(bytes: Uint8Array): void {
  const tag = bytes.length > 12 ? u32(bytes, 0) : 0;
  if (tag !== 0x00010000 && tag !== 0x4f54544f && tag !== 0x74727565) throw new FontError('This is not a TrueType or OpenType font.');
  const count = u16(bytes, 4);
  if (HEAD + count * ENTRY > bytes.length) throw new FontError('The font file ends inside its list of tables.');
  for (let i = 0; i < count; i++) {
    const at = HEAD + i * ENTRY;
    if (u32(bytes, at + 8) + u32(bytes, at + 12) > bytes.length) throw new FontError('A table of the font lies outside the file.');
  }
}

/** A table of a font whose directory was checked; undefined where it has none. */
export function tableOf(bytes: Uint8Array, tag: string): Uint8Array | undefined {
  for (let i = 0; i < u16(bytes, 4); i++) {
    const at = HEAD + i * ENTRY;
    if (String.fromCharCode(...bytes.subarray(at, at + 4)) === tag)
      return bytes.subarray(u32(bytes, at + 8), u32(bytes, at + 8) + u32(bytes, at + 12));
  }
  return undefined;
}
