// The last step of a build: node dist/pack-fonts-process.mjs
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { packFonts } from './packedFonts.ts';

await packFonts(dirname(dirname(fileURLToPath(import.meta.url))));
