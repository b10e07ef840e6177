import { mkdir } from 'node:fs/promises';
import lockfile from 'proper-lockfile';

/** Another program has the data folder. */
export class DataInUse extends Error {}

const [STALE_MS, UPDATE_MS] = [5000, 1500];

/**
 * Takes a data folder for this process. Two processes on one embedded database lose data without any
 * error, so the second one is turned away with a clear word. A lock left by a killed process ages out: `waits` for that.
 */
export async function lockData(folder: string, { waits = true } = {}): Promise<() => Promise<void>> {
  await mkdir(folder, { recursive: true });
  const retries = waits ? { retries: 7, minTimeout: 1000, maxTimeout: 1000 } : 0;
  try {
    return await lockfile.lock(folder, { stale: STALE_MS, update: UPDATE_MS, retries });
  } catch (error) {
    if ((error as { code?: string }).code === 'ELOCKED')
      throw new DataInUse(
        `The data folder ${folder} is in use by another Elastic Folio. Stop that one, or set FOLIO_DATA to another folder.`,
        { cause: error },
      );
    throw error;
  }
}
