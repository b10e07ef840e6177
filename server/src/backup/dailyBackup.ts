import { mkdir, readdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { Db } from '../database/db.ts';
import { writeBackup } from './writeBackup.ts';

const DAY_MS = 24 * 3600_000;
/** How often it is looked whether a day has passed: machines sleep, and clocks are set. */
const LOOK_MS = 30 * 60_000;
/** A start is not held up by a backup. */
const FIRST_MS = 60_000;
const KEPT = 7;
const NAME = /^day-(\d{4}-\d{2}-\d{2})\.zip$/;

export const backupsFolder = (data: string): string => join(data, 'backups');

/** Writes a backup once a day while the program runs, and keeps the last seven. Gives what stops it. */
export function startDailyBackup(db: Db, data: string): () => void {
  const look = (): void =>
    void backUpDaily(db, data, new Date()).catch((e: Error) => console.error(`The daily backup could not be written: ${e.message}`));
  const first = setTimeout(look, FIRST_MS).unref();
  const timer = setInterval(look, LOOK_MS).unref();
  return () => {
    clearTimeout(first);
    clearInterval(timer);
  };
}

/** Writes the backup of a day unless it is there; gives its file where one was written. */
export async function backUpDaily(db: Db, data: string, now: Date): Promise<string | null> {
  const folder = backupsFolder(data);
  await mkdir(folder, { recursive: true });
  const days = (await readdir(folder)).filter((name) => NAME.test(name)).sort();
  const today = `day-${now.toISOString().slice(0, 10)}.zip`;
  const newest = days[days.length - 1];
  // A clock that was set back writes no second one until the days have come again.
  if (newest !== undefined && newest >= today && Date.parse(NAME.exec(newest)![1]!) - now.getTime() < DAY_MS) return null;
  const file = join(folder, today);
  await writeBackup(db, data, file);
  const kept = [...days.filter((d) => d !== today), today].slice(-KEPT);
  for (const day of days) if (!kept.includes(day)) await rm(join(folder, day), { force: true });
  return file;
}
