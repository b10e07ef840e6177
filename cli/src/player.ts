import { readFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The built player; it lies in the build folder beside this program. */
export async function playerBytes(): Promise<Uint8Array> {
  for (let folder = dirname(fileURLToPath(import.meta.url)); ; folder = dirname(folder)) {
    const bytes = await readFile(join(folder, 'dist', 'player.js')).catch(() => null);
    if (bytes) return new Uint8Array(bytes);
    if (folder === dirname(folder)) throw new Error('The player has not been built; run npm run build.');
  }
}
