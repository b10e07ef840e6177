// Writes core/src/language/exemplars.ts from Unicode's CLDR: the letters and marks that each language is written with.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
const main = join(root, 'node_modules', 'cldr-misc-modern', 'main');
const inner = (set) => set.replace(/^\[|\]$/g, '').trim();
const lines = readdirSync(main)
  .filter((language) => /^[a-z]{2,3}$/.test(language))
  .flatMap((language) => {
    const { characters } = JSON.parse(readFileSync(join(main, language, 'characters.json'), 'utf8')).main[language];
    const letters = inner(characters.exemplarCharacters);
    return letters ? [`  ${language}: ${JSON.stringify([letters, inner(characters.punctuation ?? '')])},`] : [];
  });
writeFileSync(
  join(root, 'core', 'src', 'language', 'exemplars.ts'),
  `// Made by \`node scripts/exemplars.mjs\` from Unicode’s CLDR 45 (Unicode License v3): exemplar characters and marks, as UnicodeSets without their brackets.
/* prettier-ignore */
export const EXEMPLARS: Readonly<Record<string, readonly [letters: string, marks: string]>> = {
${lines.join('\n')}
};
`,
);
console.log(`${lines.length} languages`);
