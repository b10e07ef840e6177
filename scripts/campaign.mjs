// npm run campaign -- --minutes N --seed S
import { spawnSync } from 'node:child_process';
import { build, install, root } from './prepare.mjs';

install();
build();
process.exitCode =
  spawnSync(process.execPath, ['scripts/run.mjs', 'campaign/main.ts', ...process.argv.slice(2)], { stdio: 'inherit', cwd: root }).status ??
  1;
