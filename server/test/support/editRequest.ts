import { randomUUID } from 'node:crypto';

/** Edits with names of their own, in one burst. */
export const waiting = <E>(edits: readonly E[], burst = 'b'): { uid: string; burst: string; edit: E }[] =>
  edits.map((edit) => ({ uid: randomUUID(), burst, edit }));

/** What a window sends: edits that it made on a row. The number of the newest row, and any above it, stand for the document as it is now. */
export const editRequest = <E>(base: number, actor: string, edits: readonly E[], burst = `${actor}-${base}`) => ({
  base,
  actor,
  edits: waiting(edits, burst),
});
/** A row that no document has reached. */
export const NOW = 100_000;
