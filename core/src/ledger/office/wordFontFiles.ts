import { readWebFont } from '../html/fontFiles.ts';
import { child, childrenOf } from '../../packages/officeParts.ts';
import type { Node, OpenPackage } from '../../packages/officeParts.ts';

export interface FontInFile {
  family: string;
  weight: string;
  style: string;
  bytes: Uint8Array;
}

const MEMBERS = [
  ['w:embedRegular', '400', 'normal'],
  ['w:embedBold', '700', 'normal'],
  ['w:embedItalic', '400', 'italic'],
  ['w:embedBoldItalic', '700', 'italic'],
] as const;

/** Fonts whose program is in a text document and can be read: unscrambled with its key, the first 32 bytes by it from behind (ISO/IEC 29500-1, 17.8.1). */
export async function wordFontFiles(pack: OpenPackage, { path, root }: { path: string; root: Node | undefined }): Promise<FontInFile[]> {
  const found: FontInFile[] = [];
  for (const font of childrenOf(root, 'w:font'))
    for (const [name, weight, style] of MEMBERS) {
      const { 'r:id': id, 'w:fontKey': key } = child(font, name)?.attributes ?? {};
      const scrambled = id === undefined ? undefined : pack.files.get(pack.relations(path).get(id)?.target ?? '');
      if (!scrambled || key === undefined) continue;
      const mask = Buffer.from(key.replace(/[^0-9A-Fa-f]/g, ''), 'hex').reverse();
      const bytes = scrambled.map((b, i) => (i < 32 ? b ^ mask[i % 16]! : b));
      if (await readWebFont(bytes)) found.push({ family: font.attributes['w:name'] ?? '', weight, style, bytes });
    }
  return found;
}
