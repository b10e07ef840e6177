// npm run -s folio -- …: the command line. Nothing but its own words may reach standard output.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { build, install, root } from './prepare.mjs';

install(true);
build(true);
const result = spawnSync(process.execPath, ['--enable-source-maps', join(root, 'dist', 'folio.mjs'), ...process.argv.slice(2)], {
  stdio: 'inherit',
  cwd: process.env.INIT_CWD ?? process.cwd(),
});
process.exitCode = result.status ?? 1;
