import { readlinkSync } from 'node:fs';
import { constants, setPriority } from 'node:os';

/**
 * Lets the other threads of the program go before this one, so that people's windows get their answers while it works. Linux knows priorities of threads (setpriority(2)); elsewhere the system shares its processors as it likes.
 */
export function workInBackground(): void {
  try {
    const [, , thread] = readlinkSync('/proc/thread-self').split('/');
    if (thread) setPriority(Number(thread), constants.priority.PRIORITY_BELOW_NORMAL);
  } catch {
    // No Linux, or none that says it.
  }
}
