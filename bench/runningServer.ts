import { spawn } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** The built server in a process and a data folder of its own. */
export async function runningServer(port: number): Promise<{ origin: string; pid: number; data: string; stop: () => Promise<void> }> {
  const data = await mkdtemp(join(tmpdir(), 'folio-bench-data-'));
  const server = spawn(process.execPath, ['dist/server.mjs'], {
    env: { ...process.env, PORT: String(port), FOLIO_DATA: data },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((resolve, reject) => {
    server.stdout.on('data', (d: Buffer) => d.includes('Everything is on the shelf') && resolve());
    server.on('exit', () => reject(new Error('the server did not start')));
  });
  return {
    origin: `http://127.0.0.1:${port}`,
    pid: server.pid!,
    data,
    async stop() {
      server.kill('SIGTERM');
      await new Promise((r) => server.once('exit', r));
      await rm(data, { recursive: true, force: true });
    },
  };
}
