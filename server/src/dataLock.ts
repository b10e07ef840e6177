import { mkdir } from 'node:fs/promises';
import lockfile from 'proper-lockfile';

/**
 * Takes a data folder for this process. Two processes on one embedded database lose data without any
 * error, so the second one is turned away with a clear word. A lock left by a killed process ages out.
 */
export async function lockData(folder: string): Promise<() => Promise<void>> {
  await mkdir(folder, { recursive: true });
  try {
    return await lockfile.lock(folder, { stale: 5000, update: 1500, retries: { retries: 7, minTimeout: 1000, maxTimeout: 1000 } });
  } catch (error) {
    if ((error as { code?: string }).code === 'ELOCKED')
      throw new Error(`The data folder ${folder} is in use by another Elastic Folio. Stop that one, or set FOLIO_DATA to another folder.`, {
        cause: error,
      });
    throw error;
  }
}
