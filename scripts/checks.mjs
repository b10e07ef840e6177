// What is checked without running anything. Each check keeps what it knows of unchanged files in node_modules/.cache.
import { spawn } from 'node:child_process';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
const cache = (name) => join(root, 'node_modules', '.cache', name);
const ROOMS = ['core', 'player', 'server', 'cli', 'web', 'demo'].map((name) => `${name}/src`);

/** The slowest first: they run beside each other. */
const CHECKS = {
  types: ['types', bin('tsc'), ['-p', '.', '--incremental', '--tsBuildInfoFile', cache('types.tsbuildinfo')]],
  lint: ['lint', bin('eslint'), ['.', '--cache', '--cache-strategy', 'content', '--cache-location', cache('eslint')]],
  rooms: [
    'imports',
    bin('depcruise'),
    ['--config', 'dependency-cruiser.config.cjs', '--cache', cache('depcruise'), '--cache-strategy', 'content', ...ROOMS],
  ],
  format: ['format', bin('prettier'), ['--check', '--log-level', 'warn', '--cache', '--cache-strategy', 'content', '.']],
  unused: ['unused code', bin('knip'), []],
  documents: ['documents', process.execPath, ['scripts/documents.mjs', '--check']],
};

/** Runs the checks that are wanted, as many at a time as there are processors, and shows what each says when it ends. */
export async function runChecks(wants) {
  const waiting = Object.entries(CHECKS)
    .filter(([name]) => wants(name))
    .map(([, check]) => check);
  const result = { passed: 0, failed: 0 };
  const work = async () => {
    for (let check = waiting.shift(); check; check = waiting.shift()) result[(await run(check)) ? 'passed' : 'failed']++;
  };
  await Promise.all(Array.from({ length: Math.max(1, availableParallelism()) }, work));
  return result;
}

function run([name, command, args]) {
  const began = Date.now();
  const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (said += text));
  return new Promise((resolve) => {
    child.on('close', (code) => {
      console.log(
        `\n== ${name}\n${said.trim()}\n== ${name}: ${code === 0 ? 'well' : 'FAILED'} in ${((Date.now() - began) / 1000).toFixed(1)} s`,
      );
      resolve(code === 0);
    });
  });
}
