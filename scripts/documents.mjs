// Writes docs/format.md and docs/folio.schema.json from the document's schemas; with --check, says whether they are up to date.
import { spawnSync } from 'node:child_process';
import { root } from './bundle.mjs';

process.exitCode =
  spawnSync(process.execPath, ['scripts/run.mjs', 'docs/generate.ts', ...process.argv.slice(2)], { stdio: 'inherit', cwd: root }).status ??
  1;
