import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { bundleForNode, root } from './bundle.mjs';
const [file, ...rest] = process.argv.slice(2);
const folder = join(root, 'dist', 'z');
await bundleForNode({ program: resolve(file) }, folder);
spawnSync(process.execPath, ['--enable-source-maps', ...(process.env.PROF ? ['--cpu-prof', '--cpu-prof-dir=/tmp/prof'] : []), join(folder, 'program.mjs'), ...rest], { stdio: 'inherit' });
