import { createWriteStream } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { dirname, join, resolve } from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FolioError } from '@elastic-folio/core/node';
import { backupsFolder } from './backup/dailyBackup.ts';
import { restoreBackup } from './backup/restoreBackup.ts';
import { writeBackup } from './backup/writeBackup.ts';
import { readConfig } from './config.ts';
import type { Config } from './config.ts';
import { DataInUse, lockData } from './dataLock.ts';
import type { Db } from './database/db.ts';
import { EmbeddedDb } from './database/embedded.ts';
import { migrate } from './database/migrate.ts';
import { PostgresDb } from './database/postgres.ts';

// npm run backup -- FILE, npm run restore -- FILE [--replace]: everything that people have made, in one file, and back from it.

const migrationsOf = (config: Config): string => join(config.root, 'server', 'migrations');

async function withDatabase<T>(config: Config, work: (db: Db) => Promise<T>): Promise<T> {
  const db = config.databaseUrl ? new PostgresDb(config.databaseUrl) : await EmbeddedDb.open(join(config.data, 'database'));
  try {
    return await work(db);
  } finally {
    await db.close();
  }
}

async function backup(config: Config, file: string): Promise<void> {
  let unlock: () => Promise<void>;
  try {
    unlock = config.databaseUrl ? async () => undefined : await lockData(config.data, { waits: false });
  } catch (error) {
    if (!(error instanceof DataInUse)) throw error;
    return backupOfRunning(config, file);
  }
  try {
    const head = await withDatabase(config, async (db) => {
      await migrate(db, migrationsOf(config));
      return writeBackup(db, config.data, file);
    });
    console.log(`${head.tables['folios']} documents are backed up in ${file}`);
  } finally {
    await unlock();
  }
}

/** The embedded database belongs to the program that runs: that one writes the backup. */
async function backupOfRunning(config: Config, file: string): Promise<void> {
  const answer = await fetch(`http://127.0.0.1:${config.listensAt}/api/backup`, {
    method: 'POST',
    headers: { origin: `http://127.0.0.1:${config.port}`, 'content-type': 'application/json' },
    body: '{}',
  }).catch(() => null);
  if (!answer?.ok || !answer.body)
    throw new FolioError(
      'backup.running',
      `The data folder is in use by a program that does not answer at port ${config.port}.`,
      'Set PORT to the port on which it runs, or stop it first.',
    );
  const target = resolve(file);
  await mkdir(dirname(target), { recursive: true });
  const arriving = `${target}.arriving`;
  try {
    await pipeline(Readable.fromWeb(answer.body as never), createWriteStream(arriving, { flush: true }));
    await rename(arriving, target);
  } finally {
    await rm(arriving, { force: true });
  }
  console.log(`The program that runs is backed up in ${file}`);
}

async function restore(config: Config, file: string, replace: boolean): Promise<void> {
  const unlock = config.databaseUrl ? async () => undefined : await lockData(config.data, { waits: false });
  try {
    await withDatabase(config, async (db) => {
      if (config.databaseUrl) await aloneOn(db);
      if (replace) {
        await migrate(db, migrationsOf(config));
        const before = join(backupsFolder(config.data), `before-restore-${new Date().toISOString().replace(/[:.]/g, '-')}.zip`);
        await writeBackup(db, config.data, before);
        console.log(`What was here is backed up in ${before}`);
      }
      const head = await restoreBackup(db, { data: config.data, migrations: migrationsOf(config), file, replace });
      console.log(
        `${head.tables['folios']} documents of ${head.at.slice(0, 16).replace('T', ' ')} are back. Their outputs can be refreshed.`,
      );
    });
  } finally {
    await unlock();
  }
}

/** Refuses while others work on the same database. */
async function aloneOn(db: Db): Promise<void> {
  const [row] = await db.query<{ n: number }>(
    "SELECT count(DISTINCT application_name)::int AS n FROM pg_stat_activity WHERE datname = current_database() AND pid <> pg_backend_pid() AND backend_type = 'client backend'",
  );
  if (row!.n > 0)
    throw new FolioError('backup.inUse', 'Others are connected to this database.', 'Stop every Elastic Folio that uses it, then restore.');
}

const [command, ...rest] = process.argv.slice(2);
const file = rest.find((a) => !a.startsWith('--'));
try {
  if (!file) throw new FolioError('backup.file', `Say which file: npm run ${command} -- FILE`, '');
  const config = readConfig(process.env);
  if (command === 'restore') await restore(config, file, rest.includes('--replace'));
  else await backup(config, file);
} catch (error) {
  console.error(error instanceof FolioError ? `${error.message} ${error.advice}`.trim() : (error as Error).message);
  process.exitCode = 1;
}
