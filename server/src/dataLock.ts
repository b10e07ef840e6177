import { mkdir, stat } from 'node:fs/promises';
import lockfile from 'proper-lockfile';

/** Another program has the data folder. */
export class DataInUse extends Error {}

const [STALE_MS, UPDATE_MS] = [5000, 1500];
/** Clocks of one machine differ by less; a lock that is further ahead never ages out. */
const AHEAD_MS = 60_000;

interface LockOptions {
  /** Whether to wait for a lock that a killed process left. */
  waits?: boolean;
  /** Told why when somebody else took the lock or removed it: nothing may be written from then on. */
  onLost?: (why: string) => void;
}

/**
 * Takes a data folder for this process. Two processes on one embedded database lose data without any
 * error, so the second one is turned away with a clear word. A lock left by a killed process ages out.
 */
export async function lockData(folder: string, { waits = true, onLost }: LockOptions = {}): Promise<() => Promise<void>> {
  await mkdir(folder, { recursive: true });
  const lock = `${folder}.lock`;
  const made = await stat(lock).catch(() => null);
  if (made && made.mtimeMs > Date.now() + AHEAD_MS)
    throw new DataInUse(
      `The lock of the data folder bears a time in the future (${made.mtime.toISOString()}): the clock was set back since. If no other Elastic Folio uses ${folder}, remove ${lock} and start again.`,
    );
  const retries = waits ? { retries: 7, minTimeout: 1000, maxTimeout: 1000 } : 0;
  const onCompromised = (): void =>
    onLost?.(
      `The lock of the data folder ${folder} was taken away, so another program may use it. This one stops, so that nothing is lost; start it again.`,
    );
  try {
    const unlock = await lockfile.lock(folder, { stale: STALE_MS, update: UPDATE_MS, retries, onCompromised });
    // One that was lost in the meantime is nobody's to give back.
    return () => unlock().catch(() => undefined);
  } catch (error) {
    if ((error as { code?: string }).code === 'ELOCKED')
      throw new DataInUse(
        `The data folder ${folder} is in use by another Elastic Folio. Stop that one, or set FOLIO_DATA to another folder.`,
        { cause: error },
      );
    throw error;
  }
}
