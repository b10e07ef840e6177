// npm run bench [-- --json] [-- --check]: ratios measured within one run.
import { spawnSync } from 'node:child_process';
import { build, install, root } from './prepare.mjs';

install(true);
build(true);
process.exitCode =
  spawnSync(process.execPath, ['scripts/run.mjs', 'bench/main.ts', ...process.argv.slice(2)], { stdio: 'inherit', cwd: root }).status ?? 1;
