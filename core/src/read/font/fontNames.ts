/** A name from a font's `name` table (OpenType 1.9): the first of `ids` that it has, in English where it can be chosen. */
export function nameOf(table: Uint8Array | undefined, ids: readonly number[]): string | undefined {
  if (!table || table.length < 6) return undefined;
  const view = new DataView(table.buffer, table.byteOffset, table.byteLength);
  const strings = view.getUint16(4);
  for (const wanted of ids) {
    let best: { text: string; rank: number } | undefined;
    for (let i = 0; i < view.getUint16(2); i++) {
      const at = 6 + i * 12;
      if (at + 12 > table.length) break;
      const [platform, , language, id, length, offset] = [0, 2, 4, 6, 8, 10].map((o) => view.getUint16(at + o)) as [
        number,
        number,
        number,
        number,
        number,
        number,
      ];
      if (id !== wanted) continue;
      const from = strings + offset;
      if (from + length > table.length) continue;
      const raw = table.subarray(from, from + length);
      // Platform 1 writes single bytes, 0 and 3 UTF-16 in big-endian order; 0x0409 is US English.
      const text = platform === 1 ? String.fromCharCode(...raw) : new TextDecoder('utf-16be').decode(raw);
      const rank = platform === 3 ? (language === 0x0409 ? 3 : 2) : platform === 0 ? 1 : 0;
      if (text.trim() && (!best || rank > best.rank)) best = { text: text.trim(), rank };
    }
    if (best) return best.text;
  }
  return undefined;
}
