// Bundles TypeScript entry points with esbuild: the project's own packages are taken in, and with them those of others
// that consist of nothing but JavaScript in many small files, which take longer to find than to run. All else stays outside.
import { build } from 'esbuild';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

const TAKEN_IN = [
  '@cantoo/pdf-lib',
  'bidi-js',
  'busboy',
  'compression',
  'diff',
  'express',
  'express-rate-limit',
  'gettext-parser',
  'helmet',
  'immer',
  'jose',
  'marked',
  'papaparse',
  'parse5',
  'saxes',
  'svgpath',
  'yauzl',
  'yazl',
  'zod',
];

/** Packages that one of those asks for come with it. */
const someOfOthers = {
  name: 'some-of-others',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, ({ path, kind, importer }) => {
      const isTakenIn = (name) => path === name || path.startsWith(`${name}/`);
      return path.startsWith('@elastic-folio/') || kind === 'entry-point' || importer.includes('/node_modules/') || TAKEN_IN.some(isTakenIn)
        ? undefined
        : { path, external: true };
    });
  },
};

/** Of Zod's messages in fifty languages, which would be read at each start, those in English are used. */
const messagesInEnglish = {
  name: 'messages-in-english',
  setup(b) {
    b.onLoad({ filter: /[/\\]zod[/\\]v4[/\\]locales[/\\]index\.js$/ }, () => ({ contents: "export { default as en } from './en.js';" }));
  },
};

/** Programs for Node: `entries` maps an output name to a source file. */
export const bundleForNode = (entries, outdir = join(root, 'dist')) =>
  build({
    absWorkingDir: root,
    entryPoints: entries,
    outdir,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    chunkNames: 'chunk-[hash]',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    sourcemap: true,
    logLevel: 'warning',
    plugins: [someOfOthers, messagesInEnglish],
    // Packages in CommonJS ask Node.js for its own modules.
    banner: { js: "import { createRequire as requireFrom } from 'node:module';\nconst require = requireFrom(import.meta.url);" },
  });

/** The player: one classic script that runs from a file as well. */
export const bundlePlayer = () =>
  build({
    absWorkingDir: root,
    entryPoints: { player: 'player/src/main.ts' },
    outdir: join(root, 'dist'),
    bundle: true,
    format: 'iife',
    target: 'es2020',
    minify: true,
    legalComments: 'none',
    logLevel: 'warning',
  });
