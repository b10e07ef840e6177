// Builds everything that runs: server, worker, command line, player and the web application.
import { existsSync } from 'node:fs';
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
  };
  await bundleForNode(Object.fromEntries(Object.entries(entries).filter(([, file]) => existsSync(join(root, file)))));
  await import(pathToFileURL(join(root, 'dist/pack-fonts-process.mjs')));
}
if (wants('web') && existsSync(join(root, 'web/index.html'))) {
  const { build } = await import('vite');
  await build({ root: join(root, 'web'), configFile: join(root, 'web/vite.config.ts'), logLevel: 'warn' });
  await packAssets(join(root, 'dist/web/assets'));
}
