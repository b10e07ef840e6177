/** What an archive may hold before it is refused. */
export interface ArchiveLimits {
  expandedBytes: number;
  entries: number;
  /** Expanded bytes for each packed byte. */
  ratio: number;
  /** One JSON part; parts are held in memory. */
  partBytes: number;
}

export const DEFAULT_LIMITS: ArchiveLimits = { expandedBytes: 2 * 2 ** 30, entries: 20_000, ratio: 200, partBytes: 64 * 2 ** 20 };
