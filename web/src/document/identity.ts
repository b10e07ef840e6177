/** This window, among those of one person. */
export const windowId = Math.random().toString(36).slice(2, 10);

let bursts = 0;
/** Names a burst: edits that are one step to undo. */
export const newBurst = (): string => `${windowId}.${++bursts}`;

/** Who this is: kept by the browser, so that undo survives closing the window. */
export function actorId(): string {
  let actor = localStorage.getItem('folio.actor');
  if (!actor) localStorage.setItem('folio.actor', (actor = crypto.randomUUID()));
  return actor;
}
