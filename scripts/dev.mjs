// npm run dev: the application as it is written. Pages come from Vite, which puts changes into them as they are saved; the server is
// bundled and started anew after a change of its own. Uses the same port and the same data as npm start.
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { watch } from 'node:fs';
import { join } from 'node:path';
import { clearTimeout } from 'node:timers';
import { createServer } from 'vite';
import { build, install, root } from './prepare.mjs';

install();
build();
const port = Number(process.env.PORT ?? 4610);
const behind = port + 4;
/** Several files are saved at once. */
const SETTLED_MS = 200;

let server = null;
function start() {
  server = spawn(process.execPath, ['--enable-source-maps', 'dist/server.mjs'], {
    cwd: root,
    stdio: 'inherit',
    env: { ...process.env, PORT: String(port), BEHIND_PORT: String(behind) },
  });
}
async function startAnew() {
  const { status } = spawnSync(process.execPath, ['scripts/build.mjs', 'programs'], { cwd: root, stdio: 'inherit' });
  if (status !== 0) return console.error('The server stays as it was.');
  if (server.exitCode === null) {
    server.kill('SIGTERM');
    await once(server, 'exit');
  }
  start();
}

// However this ends, the server ends with it.
process.on('exit', () => server.kill('SIGTERM'));
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => process.exit());
start();
let [timer, turn] = [null, Promise.resolve()];
for (const folder of ['core', 'server', 'player', 'demo'])
  watch(join(root, folder, 'src'), { recursive: true }, () => {
    clearTimeout(timer);
    timer = setTimeout(() => (turn = turn.then(startAnew)), SETTLED_MS);
  });

const pages = await createServer({
  root: join(root, 'web'),
  configFile: join(root, 'web', 'vite.config.ts'),
  server: { host: '127.0.0.1', port, strictPort: true, proxy: { '/api': { target: `http://127.0.0.1:${behind}` } } },
});
await pages.listen();
console.log(`Elastic Folio, as it is written: http://127.0.0.1:${port}`);
