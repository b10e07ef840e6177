// Makes a checkout ready to run: installs what the lockfile names and builds what has changed.
// Uses nothing but Node itself, so that it works before anything is installed.
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = dirname(dirname(fileURLToPath(import.meta.url)));
const sources = ['core', 'player', 'server', 'cli', 'web', 'demo', 'scripts'];

function run(command, args, quiet) {
  const result = spawnSync(command, args, {
    cwd: root,
    stdio: ['ignore', quiet ? 'pipe' : 'inherit', quiet ? 'pipe' : 'inherit'],
    encoding: 'utf8',
  });
  if (result.status === 0) return;
  if (quiet) process.stderr.write(`${result.stdout ?? ''}${result.stderr ?? ''}`);
  console.error(`${command} ${args.join(' ')} did not work.`);
  process.exit(1);
}

const kept = (file) => (existsSync(file) ? readFileSync(file, 'utf8') : '');

export function install(quiet = false) {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Elastic Folio needs Node.js 20.19 or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
  const stamp = join(root, 'node_modules', '.installed');
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (kept(stamp) === wanted) return;
  if (!quiet) console.log('Installing …');
  // Not `npm ci`: it wants entries for other systems' binaries, which not every registry has. Versions come from the lockfile.
  run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], quiet);
  writeFileSync(stamp, wanted);
}

function* filesBelow(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.name === 'node_modules' || entry.name === 'test') continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesBelow(path);
    else yield path;
  }
}

export function build(quiet = false) {
  const hash = createHash('sha256').update(kept(join(root, 'package-lock.json')));
  for (const folder of sources)
    for (const file of filesBelow(join(root, folder)))
      hash.update(`${file.slice(root.length)} ${statSync(file).size} ${statSync(file).mtimeMs}\n`);
  const wanted = hash.digest('hex');
  const stamp = join(root, 'dist', '.built');
  if (kept(stamp) === wanted) return;
  if (!quiet) console.log('Building …');
  run(process.execPath, ['scripts/build.mjs'], quiet);
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, wanted);
}
