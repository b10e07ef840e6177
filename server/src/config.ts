import { existsSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export interface Config {
  port: number;
  /** Where the application listens: at `port`, or behind a program that stands there and hands on what it is asked (`npm run dev`). */
  listensAt: number;
  /** Results are served from another origin, on the next port. */
  resultPort: number;
  /** Translators are let in at another origin, on the port after that. */
  guestPort: number;
  data: string;
  databaseUrl: string | undefined;
  root: string;
}

/** The folder of the project: the nearest one above this file that holds the migrations. */
function findRoot(): string {
  let folder = dirname(fileURLToPath(import.meta.url));
  while (!existsSync(join(folder, 'server', 'migrations'))) {
    if (folder === dirname(folder)) throw new Error('The project folder was not found.');
    folder = dirname(folder);
  }
  return folder;
}

/** Settings from the environment: PORT, BEHIND_PORT, FOLIO_DATA, DATABASE_URL. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const root = findRoot();
  const port = Number(env['PORT'] ?? 4610);
  if (!Number.isInteger(port) || port < 1 || port > 65533) throw new Error(`PORT must be a number from 1 to 65533, not "${env['PORT']}".`);
  return {
    port,
    listensAt: Number(env['BEHIND_PORT'] ?? port),
    resultPort: port + 1,
    guestPort: port + 2,
    data: resolve(env['FOLIO_DATA'] ?? join(root, 'data')),
    databaseUrl: env['DATABASE_URL'] || undefined,
    root,
  };
}
