import { FolioError } from '@elastic-folio/core/node';
import type { Outcome } from './tasks.ts';

/** What a thread made; what went wrong there is thrown here. */
export function resultOf<T>(outcome: Outcome<T>): T {
  if ('ok' in outcome) return outcome.ok;
  if ('failure' in outcome) throw new FolioError(outcome.failure.code, outcome.failure.message, outcome.failure.advice);
  throw new FolioError('cancelled', 'This was stopped.', 'Try again.');
}
