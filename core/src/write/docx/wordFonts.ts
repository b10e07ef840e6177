import { createHash } from 'node:crypto';
import type { FontFace } from '../../compose/fontFace.ts';
import type { OfficePackage, Part } from '../ooxml/officePackage.ts';
import { OFFICE } from '../ooxml/officePackage.ts';
import type { Xml } from '../assets/xml.ts';
import { el, sequence, xmlFile } from '../assets/xml.ts';
import { CONTENT, NAMESPACES } from '../ooxml/wordNamespaces.ts';

/** `w:font` in the order of its schema (ISO/IEC 29500-1, 17.8.3.10, CT_Font). */
const font = sequence('w:font', ['w:altName', 'w:embedRegular', 'w:embedBold', 'w:embedItalic', 'w:embedBoldItalic'] as const);
type Member = 'w:embedRegular' | 'w:embedBold' | 'w:embedItalic' | 'w:embedBoldItalic';

const memberOf = ({ familyOfFour: { bold, italic } }: FontFace): Member =>
  bold && italic ? 'w:embedBoldItalic' : bold ? 'w:embedBold' : italic ? 'w:embedItalic' : 'w:embedRegular';

/** Outlines of TrueType: programs that read the format show no other fonts out of a file (17.8.1 embeds “as defined by OpenType”; common practice). */
const isTrueType = ({ bytes }: FontFace): boolean => (bytes[0] === 0 && bytes[1] === 1) || (bytes[0] === 0x74 && bytes[1] === 0x72);

/** Whether a font may travel in a text document, and is of a kind that such can show. */
export const canTravel = (face: FontFace): boolean => face.mayEmbedForEditing && isTrueType(face);

/** Writes the table of fonts, and the fonts themselves where they are to travel. */
export function writeFonts(
  pack: OfficePackage,
  document: Part,
  faces: Iterable<FontFace>,
  embed: boolean,
  called: (face: FontFace) => string,
): void {
  const table = pack.add('word/fontTable.xml', CONTENT.fontTable);
  document.relate(`${OFFICE}/fontTable`, table);
  const families = new Map<string, Partial<Record<Member, Xml>>>();
  for (const face of [...faces].sort((a, b) => (a.key < b.key ? -1 : 1))) {
    const name = called(face);
    const members = families.get(name) ?? {};
    families.set(name, members);
    const member = memberOf(face);
    if (!embed || members[member] || name !== face.familyOfFour.family || !canTravel(face)) continue;
    const key = keyOf(face.bytes);
    const part = pack.add(`word/fonts/${key.slice(1, 9)}.odttf`, CONTENT.font, obfuscated(face.bytes, key));
    members[member] = el(member, { 'r:id': table.relate(`${OFFICE}/font`, part), 'w:fontKey': key });
  }
  table.content = xmlFile(
    el(
      'w:fonts',
      NAMESPACES,
      [...families].map(([name, members]) => font(members, { 'w:name': name })),
    ),
  );
}

/** A key for the scrambling of a font, the same for the same font: `{01234567-89AB-…}`. */
function keyOf(bytes: Uint8Array): string {
  const hex = createHash('sha256').update(bytes).digest('hex').slice(0, 32).toUpperCase();
  return `{${[hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-')}}`;
}

/** The first 32 bytes of a font mixed with its key, read from behind (17.8.1). */
function obfuscated(bytes: Uint8Array, key: string): Uint8Array {
  const out = bytes.slice();
  const mask = Buffer.from(key.replace(/[{}-]/g, ''), 'hex').reverse();
  for (let i = 0; i < 32 && i < out.length; i++) out[i] = out[i]! ^ mask[i % 16]!;
  return out;
}
