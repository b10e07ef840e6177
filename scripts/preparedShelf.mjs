// A data folder whose shelf has all samples already: filled once for each build, copied for every test that starts a server.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = dirname(dirname(fileURLToPath(import.meta.url)));
/** Bundles name their chunks by what is in these: whatever changes in a chunk changes them. */
const PROGRAMS = ['dist/server.mjs', 'dist/samples-process.mjs', 'dist/conversion-thread.mjs'];
const LONGEST_FILLING_MS = 180_000;

/** Puts the filled data folder into `folder`, which does not exist yet. */
export async function preparedShelf(folder) {
  const hash = createHash('sha256');
  for (const file of PROGRAMS.map((name) => join(root, name))) if (existsSync(file)) hash.update(readFileSync(file));
  for (const name of readdirSync(join(root, 'server', 'migrations')).sort()) hash.update(name);
  const kept = join(tmpdir(), `folio-shelf-${hash.digest('hex').slice(0, 16)}`);
  if (!existsSync(kept)) await fillOnce(kept);
  cpSync(kept, folder, { recursive: true });
}

/** Of several that ask at the same time, one fills the folder and the others wait for it. */
async function fillOnce(kept) {
  const turn = `${kept}.turn`;
  for (;;) {
    try {
      mkdirSync(turn);
      break;
    } catch {
      if (existsSync(kept)) return;
      if (existsSync(turn) && Date.now() - statSync(turn).mtimeMs > LONGEST_FILLING_MS) rmSync(turn, { recursive: true, force: true });
      await new Promise((resolve) => setTimeout(resolve, 200));
    }
  }
  try {
    if (!existsSync(kept)) await fill(kept);
  } finally {
    rmSync(turn, { recursive: true, force: true });
  }
}

async function fill(kept) {
  const data = `${kept}.part`;
  rmSync(data, { recursive: true, force: true });
  const child = spawn(process.execPath, [join(root, 'dist', 'server.mjs')], {
    env: { ...process.env, PORT: String(await freePort()), FOLIO_DATA: data, DATABASE_URL: '' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  await new Promise((resolve, reject) => {
    child.stdout.on('data', (said) => said.includes('Everything is on the shelf') && resolve());
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
  child.kill('SIGTERM');
  await ended;
  renameSync(data, kept);
}

const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  rmSync(process.argv[2], { recursive: true, force: true });
  await preparedShelf(process.argv[2]);
}
