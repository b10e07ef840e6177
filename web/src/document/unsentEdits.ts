import type { WaitingEdit } from '@elastic-folio/core';

/** Edits of a window that have not been confirmed, and the row that they were made on. */
export interface Unsent {
  base: number;
  edits: readonly WaitingEdit[];
}

const PREFIX = 'folio.unsent';
const keyOf = (document: string, window: string): string => `${PREFIX}.${document}.${window}`;
const lockOf = (window: string): string => `folio.window.${window}`;

/** Keeps what has not arrived in the browser, where it survives the window; where the browser has no room it lives in the window alone. */
export function keepUnsent(document: string, window: string, { base, edits }: Unsent): void {
  try {
    if (edits.length) localStorage.setItem(keyOf(document, window), JSON.stringify({ base, edits }));
    else localStorage.removeItem(keyOf(document, window));
  } catch {
    // No room, or storage is turned off.
  }
}

/** Says for as long as this window lives that what it keeps is its own business (Web Locks API). */
export function holdWindow(window: string): void {
  void globalThis.navigator?.locks?.request(lockOf(window), () => new Promise(() => undefined));
}

/** What windows that are gone could not send of a document. */
export async function leftUnsent(document: string): Promise<{ left: Unsent; done: () => void }[]> {
  const prefix = `${PREFIX}.${document}.`;
  const keys = Object.keys(localStorage).filter((k) => k.startsWith(prefix));
  if (!keys.length) return [];
  const held = (await globalThis.navigator?.locks?.query())?.held ?? [];
  const alive = new Set(held.map((l) => l.name));
  return keys.flatMap((key) => {
    if (alive.has(lockOf(key.slice(prefix.length)))) return [];
    try {
      return [{ left: JSON.parse(localStorage.getItem(key)!) as Unsent, done: () => localStorage.removeItem(key) }];
    } catch {
      localStorage.removeItem(key);
      return [];
    }
  });
}
