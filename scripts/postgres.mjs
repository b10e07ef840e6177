// A PostgreSQL server of its own for the tests, on a free port and in a temporary folder; gone when they end.
import { spawnSync } from 'node:child_process';
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const debian = '/usr/lib/postgresql';
const idOf = (flag) => Number.parseInt(spawnSync('id', [flag, 'postgres'], { encoding: 'utf8' }).stdout, 10);
const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

/** `{ database(name), restart(), stop() }`, or null where no PostgreSQL server is installed; each name is an empty database of its own. */
export async function postgres() {
  const version = existsSync(debian) ? readdirSync(debian).sort((a, b) => b - a)[0] : undefined;
  const bin = version && join(debian, version, 'bin');
  if (!bin || !existsSync(join(bin, 'initdb'))) return null;
  const folder = mkdtempSync(join(tmpdir(), 'folio-postgres-'));
  // PostgreSQL refuses to run as root; Debian's package brings a user for it.
  const as = process.getuid() === 0 ? { uid: idOf('-u'), gid: idOf('-g') } : {};
  if (as.uid !== undefined) chownSync(folder, as.uid, as.gid);
  const run = (program, ...args) => spawnSync(join(bin, program), args, { ...as, cwd: folder, stdio: 'ignore' }).status === 0;
  const data = join(folder, 'data');
  const port = await freePort();
  const stop = () => {
    run('pg_ctl', '-D', data, '-m', 'immediate', 'stop');
    rmSync(folder, { recursive: true, force: true });
  };
  const options = `-c listen_addresses=127.0.0.1 -c unix_socket_directories=${folder} -c fsync=off -p ${port}`;
  if (run('initdb', '-D', data, '-U', 'folio', '-A', 'trust', '-E', 'UTF8') && run('pg_ctl', '-D', data, '-w', '-o', options, 'start'))
    return {
      stop,
      /** Stops the server as an administrator does (`fast`), or as a fault does (`immediate`), waits, and starts it again. */
      async restart(pauseMs = 0, mode = 'fast') {
        run('pg_ctl', '-D', data, '-m', mode, '-w', 'stop');
        await new Promise((resolve) => setTimeout(resolve, pauseMs));
        run('pg_ctl', '-D', data, '-w', '-o', options, 'start');
      },
      database(name) {
        run('createdb', '-h', '127.0.0.1', '-p', String(port), '-U', 'folio', name);
        return { TEST_DATABASE_URL: `postgres://folio@127.0.0.1:${port}/${name}` };
      },
    };
  stop();
  return null;
}
