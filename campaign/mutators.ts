import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { Random } from './random.ts';

/** Changes bytes in some way that a broken disk, a bad program or somebody hostile might. */
type Mutator = (bytes: Uint8Array, random: Random) => Uint8Array;

const joined = (...parts: Uint8Array[]): Uint8Array => new Uint8Array(Buffer.concat(parts));
const place = (bytes: Uint8Array, random: Random): [number, number] => {
  const from = random.below(bytes.length + 1);
  return [from, Math.min(bytes.length, from + 1 + random.below(Math.max(1, bytes.length >> 3)))];
};

/** Words that programs trip over: names of the language, paths out of a folder, ends of markup, numbers without measure. */
const TRAPS = [
  '__proto__',
  'constructor',
  '../../../../etc/passwd',
  'file:///etc/passwd',
  '\0',
  '\ud800',
  ']]>',
  '</',
  '<!--',
  '<!DOCTYPE a [<!ENTITY b "bbbbbbbbbb">]>',
  '&b;',
  '"',
  '{',
  '99999999999999999999',
  '-1',
  '1e999',
  'NaN',
  '%s%n%x',
  'javascript:alert(1)',
  'A'.repeat(20_000),
  '1'.repeat(20_000),
  ' '.repeat(20_000),
];

const flipped: Mutator = (bytes, random) => {
  const out = bytes.slice();
  for (let n = 1 + random.below(8); n > 0 && out.length; n--) out[random.below(out.length)]! ^= 1 << random.below(8);
  return out;
};
const cut: Mutator = (bytes, random) => bytes.slice(0, random.below(bytes.length + 1));
const without: Mutator = (bytes, random) => {
  const [from, to] = place(bytes, random);
  return joined(bytes.subarray(0, from), bytes.subarray(to));
};
const repeated: Mutator = (bytes, random) => {
  const [from, to] = place(bytes, random);
  const part = bytes.subarray(from, Math.min(to, from + 2000));
  return joined(bytes.subarray(0, to), ...Array.from({ length: 1 + random.below(200) }, () => part), bytes.subarray(to));
};
const trapped: Mutator = (bytes, random) => {
  const at = random.below(bytes.length + 1);
  return joined(bytes.subarray(0, at), strToU8(random.of(TRAPS)), bytes.subarray(at));
};
const noise: Mutator = (bytes, random) => {
  const out = bytes.slice();
  const [from, to] = place(bytes, random);
  for (let i = from; i < Math.min(to, from + 500); i++) out[i] = random.below(256);
  return out;
};
/** A number or a quoted word of a text is another one. */
const reworded: Mutator = (bytes, random) => {
  const text = strFromU8(bytes, true);
  const found = [...text.slice(0, 2_000_000).matchAll(/"[^"<>&]{1,60}"|\b\d{1,9}\b/g)];
  if (!found.length) return trapped(bytes, random);
  const one = random.of(found);
  const quote = one[0].startsWith('"') ? '"' : '';
  const word = `${quote}${random.of(TRAPS)}${quote}`;
  return joined(strToU8(text.slice(0, one.index), true), strToU8(word), strToU8(text.slice(one.index + one[0].length), true));
};

const PLAIN: readonly Mutator[] = [flipped, cut, without, repeated, trapped, noise, reworded];

/** Within a package: one of its files is changed, goes, is there twice under another name, or lies outside. */
const inside: Mutator = (bytes, random) => {
  let files: Record<string, Uint8Array>;
  try {
    files = unzipSync(bytes);
  } catch {
    return flipped(bytes, random);
  }
  const names = Object.keys(files);
  if (!names.length) return flipped(bytes, random);
  const name = random.of(names);
  const kind = random.below(10);
  if (kind < 6) files[name] = random.of(PLAIN)(files[name]!, random);
  else if (kind === 6) delete files[name];
  else if (kind === 7)
    files[random.of(['../../out', '/out', `x\\..\\..\\${name}`, `${name}/`, name.toUpperCase(), `./${name}`])] = files[name]!;
  else if (kind === 8) files[name] = new Uint8Array(20 * 2 ** 20);
  else {
    const other = random.of(names);
    [files[name], files[other]] = [files[other]!, files[name]!];
  }
  return zipSync(files, { level: 1 });
};

const isPackage = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;

/** A file changed in one to three ways; packages mostly on their inside. */
export function mutated(bytes: Uint8Array, random: Random): Uint8Array {
  // A copy, and no Buffer: a slice of one of those is the same memory, and a change would be there for good.
  let out: Uint8Array = new Uint8Array(bytes);
  for (let n = 1 + random.below(3); n > 0; n--) out = (isPackage(out) && random.next() < 0.75 ? inside : random.of(PLAIN))(out, random);
  return out;
}
