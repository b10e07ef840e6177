// Runs one TypeScript file: node scripts/run.mjs FILE [arguments]
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { bundleForNode, root } from './bundle.mjs';

const [file, ...rest] = process.argv.slice(2);
const folder = mkdtempSync(join(root, 'node_modules', '.run-'));
try {
  await bundleForNode({ program: resolve(file) }, folder);
  process.exitCode =
    spawnSync(process.execPath, ['--enable-source-maps', '--expose-gc', join(folder, 'program.mjs'), ...rest], { stdio: 'inherit' })
      .status ?? 1;
} finally {
  rmSync(folder, { recursive: true, force: true });
}
