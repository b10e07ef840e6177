import { constants, existsSync } from 'node:fs';
import { cp, mkdir, rename, rm } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { syncFolder } from '../syncToDisk.ts';

/** Where a build puts an empty database, beside the program. */
export const emptyDatabase = (): string => join(dirname(fileURLToPath(import.meta.url)), 'empty-database');

/**
 * Puts a copy of the empty database that came with the program into a folder: laying one out takes ten times the work of a start.
 * False where none came with it. The folder appears whole, or not at all.
 */
export async function copyEmptyDatabase(folder: string, empty = emptyDatabase()): Promise<boolean> {
  if (!existsSync(join(empty, 'PG_VERSION'))) return false;
  const part = `${folder}.part`;
  await rm(part, { recursive: true, force: true });
  await mkdir(dirname(folder), { recursive: true });
  await cp(empty, part, { recursive: true, mode: constants.COPYFILE_FICLONE });
  syncFolder(part);
  await rm(folder, { recursive: true, force: true });
  await rename(part, folder);
  return true;
}
