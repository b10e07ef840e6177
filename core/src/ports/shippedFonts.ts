import { readFile, readdir } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { FontSource } from '../compose/fontSet.ts';

const PACKAGES: [family: string, name: string][] = [
  ['Source Serif 4', 'source-serif-4'],
  ['Work Sans', 'work-sans'],
  ['Zen Kaku Gothic New', 'zen-kaku-gothic-new'],
  ['Heebo', 'heebo'],
  ['Arimo', 'arimo'],
  ['Tinos', 'tinos'],
  ['Cousine', 'cousine'],
  ['Carlito', 'carlito'],
];
const WEIGHTS = new Set([400, 600, 700]);

interface ShippedFont {
  key: string;
  family: string;
  weight: number;
  style: 'normal' | 'italic';
  path: string;
}

/** The fonts that come with the program, found among its packages (open licences, TrueType). */
export async function shippedFonts(): Promise<ShippedFont[]> {
  const require = createRequire(import.meta.url);
  const found: ShippedFont[] = [];
  for (const [family, name] of PACKAGES) {
    const folder = dirname(require.resolve(`@expo-google-fonts/${name}/package.json`));
    for (const entry of (await readdir(folder)).sort()) {
      const match = /^(\d+)[A-Za-z]+?(_Italic)?$/.exec(entry);
      if (!match || !WEIGHTS.has(Number(match[1]))) continue;
      const file = (await readdir(join(folder, entry))).find((f) => f.endsWith('.ttf'));
      if (file)
        found.push({
          key: `shipped-${name}-${entry.toLowerCase()}`,
          family,
          weight: Number(match[1]),
          style: match[2] ? 'italic' : 'normal',
          path: join(folder, entry, file),
        });
    }
  }
  return found;
}

export async function shippedFontSource(): Promise<FontSource> {
  const fonts = await shippedFonts();
  const byKey = new Map(fonts.map((f) => [f.key, f]));
  return {
    origin: 'shipped',
    list: () => fonts,
    bytes: async (key) => new Uint8Array(await readFile(byKey.get(key)!.path)),
    content: (key) => byKey.get(key)!.path,
  };
}
