// Builds everything that runs: server, worker, command line, player and the web application.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { bundleForNode, bundlePlayer, root } from './bundle.mjs';
import { packAssets } from './pack.mjs';

const parts = process.argv.slice(2);
const wants = (part) => parts.length === 0 || parts.includes(part);
if (wants('programs')) {
  await bundlePlayer();
  const entries = {
    folio: 'cli/src/main.ts',
    server: 'server/src/main.ts',
    'conversion-thread': 'server/src/conversion/thread.ts',
    'database-thread': 'server/src/database/thread.ts',
    'samples-process': 'server/src/samplesProcess.ts',
    'worker-process': 'server/src/workerProcess.ts',
    'backup-process': 'server/src/backupProcess.ts',
    'pack-fonts-process': 'server/src/packFontsProcess.ts',
    'lay-out-process': 'server/src/layOutProcess.ts',
  };
  clearChunks();
  await bundleForNode(Object.fromEntries(Object.entries(entries).filter(([, file]) => existsSync(join(root, file)))));
  await import(pathToFileURL(join(root, 'dist/pack-fonts-process.mjs')));
  await layOutDatabase();
}
if (wants('web') && existsSync(join(root, 'web/index.html'))) {
  const { build } = await import('vite');
  await build({ root: join(root, 'web'), configFile: join(root, 'web/vite.config.ts'), logLevel: 'warn' });
  await packAssets(join(root, 'dist/web/assets'));
}

/** Pieces of former builds have names of their own, and would stay. */
function clearChunks() {
  const dist = join(root, 'dist');
  if (!existsSync(dist)) return;
  for (const name of readdirSync(dist)) if (/^chunk-\w+\.mjs(\.map)?$/.test(name)) rmSync(join(dist, name));
}

/** An empty database for first starts, laid out anew where it would be another. */
async function layOutDatabase() {
  const migrations = join(root, 'server/migrations');
  const sources = [
    join(root, 'node_modules/@electric-sql/pglite/package.json'),
    ...readdirSync(migrations).map((f) => join(migrations, f)),
  ];
  const version = sources.reduce((hash, file) => hash.update(readFileSync(file)), createHash('sha256')).digest('hex');
  const [folder, mark] = [join(root, 'dist/empty-database'), join(root, 'dist/empty-database.version')];
  if (existsSync(mark) && readFileSync(mark, 'utf8') === version) return;
  rmSync(mark, { force: true });
  rmSync(folder, { recursive: true, force: true });
  await import(pathToFileURL(join(root, 'dist/lay-out-process.mjs')));
  writeFileSync(mark, version);
}
