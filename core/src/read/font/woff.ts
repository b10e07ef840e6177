import { inflateSync } from 'node:zlib';
import { FontError } from '../../compose/fontTables.ts';

/** Makes a TrueType or OpenType font of a WOFF 1.0 file (W3C Recommendation of 13 December 2012, sections 3 to 5). */
export function unpackWoff(file: Uint8Array, most: number): Uint8Array {
  const view = new DataView(file.buffer, file.byteOffset, file.byteLength);
  if (file.length < 44) throw new FontError('The font file ends inside its header.');
  const flavour = view.getUint32(4);
  const count = view.getUint16(12);
  if (44 + count * 20 > file.length) throw new FontError('The font file ends inside its list of tables.');
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + i * 20;
    const [tag, offset, packed, length, checksum] = [0, 4, 8, 12, 16].map((o) => view.getUint32(at + o)) as [
      number,
      number,
      number,
      number,
      number,
    ];
    if (offset + packed > file.length || packed > length) throw new FontError('A table of the font lies outside the file.');
    return { tag, offset, packed, length, checksum };
  });
  const padded = (n: number): number => (n + 3) & ~3;
  const size = tables.reduce((sum, t) => sum + padded(t.length), 12 + count * 16);
  if (size > most) throw new FontError('The font is larger than 64 MiB when it is unpacked.');
  const out = new Uint8Array(size);
  const to = new DataView(out.buffer);
  const power = Math.floor(Math.log2(Math.max(1, count)));
  to.setUint32(0, flavour);
  [count, 16 * 2 ** power, power, count * 16 - 16 * 2 ** power].forEach((n, i) => to.setUint16(4 + 2 * i, Math.max(0, n)));
  let at = 12 + count * 16;
  for (const [i, t] of tables.entries()) {
    const raw = file.subarray(t.offset, t.offset + t.packed);
    let data: Uint8Array = raw;
    if (t.packed < t.length)
      try {
        data = inflateSync(raw, { maxOutputLength: t.length });
      } catch {
        throw new FontError('A table of the font is damaged.');
      }
    if (data.length !== t.length) throw new FontError('A table of the font has another length than it says.');
    [t.tag, t.checksum, at, t.length].forEach((n, j) => to.setUint32(12 + i * 16 + 4 * j, n));
    out.set(data, at);
    at += padded(t.length);
  }
  return out;
}
