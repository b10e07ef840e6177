// Bundles TypeScript entry points with esbuild: the project's own packages are taken in, everything
// from node_modules stays outside.
import { build } from 'esbuild';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));

const ownPackagesOnly = {
  name: 'own-packages-only',
  setup(b) {
    b.onResolve({ filter: /^[^./]/ }, (args) =>
      args.path.startsWith('@elastic-folio/') || args.kind === 'entry-point' ? undefined : { path: args.path, external: true },
    );
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
    plugins: [ownPackagesOnly],
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
