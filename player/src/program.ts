/** What the player is told about a publication, read from inline JSON. */
export interface Program {
  version: 1;
  /** Ids of the page elements, in reading order. */
  pages: string[];
}

/** Reads a program; null where it is none, so that the page stays what it is without a player. */
export function readProgram(json: string): Program | null {
  try {
    const value = JSON.parse(json) as Partial<Program>;
    return value.version === 1 && Array.isArray(value.pages) && value.pages.every((p) => typeof p === 'string')
      ? { version: 1, pages: value.pages }
      : null;
  } catch {
    return null;
  }
}
