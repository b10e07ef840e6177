// npm run backup -- FILE and npm run restore -- FILE [--replace].
import { resolve } from 'node:path';
import { build, install, root } from './prepare.mjs';

install();
build();
// Files are named from where the command was given.
const from = process.env.INIT_CWD ?? process.cwd();
process.argv = process.argv.map((a, i) => (i > 2 && !a.startsWith('--') ? resolve(from, a) : a));
process.chdir(root);
await import('../dist/backup-process.mjs');
