import type { Collected, Measures } from '@elastic-folio/core/api';
import type { Db } from '../database/db.ts';

/** More of one edition is not kept: it is a stand-in, to try with. */
const MOST_ROWS = 50_000;
/** And more than this in all is not taken: it could fill the disk. */
const MOST_IN_ALL = 500_000;
const MOST_LISTED = 12;

/** Stands in for a publisher's collector: keeps what web editions send, and counts it. */
export class Collector {
  constructor(private readonly db: Db) {}

  /** Whether it was taken: there is room for so much and no more. */
  take({ id, visit, events }: Collected): Promise<boolean> {
    return this.db.transaction(async (query) => {
      const [whole = { n: 0 }] = await query<{ n: number }>('SELECT count(*)::int AS n FROM collected');
      if (whole.n + events.length > MOST_IN_ALL) return false;
      const [{ n } = { n: 0 }] = await query<{ n: number }>('SELECT count(*)::int AS n FROM collected WHERE sent_as = $1', [id]);
      if (n + events.length > MOST_ROWS)
        await query(
          'DELETE FROM collected WHERE sent_as = $1 AND at <= (SELECT at FROM collected WHERE sent_as = $1 ORDER BY at OFFSET $2 LIMIT 1)',
          [id, Math.min(n - 1, Math.floor(MOST_ROWS / 10))],
        );
      for (const { kind, page, what } of events)
        await query('INSERT INTO collected (sent_as, visit, kind, page, what) VALUES ($1, $2, $3, $4, $5)', [
          id,
          visit,
          kind,
          page,
          what ?? null,
        ]);
      return true;
    });
  }

  async measures(id: string): Promise<Measures> {
    const ask = <R extends object>(sql: string): Promise<R[]> => this.db.query<R>(sql, [id]);
    const [visits] = await ask<{ n: number }>('SELECT count(DISTINCT visit)::int AS n FROM collected WHERE sent_as = $1');
    return {
      id,
      visits: visits?.n ?? 0,
      pages: await ask(
        "SELECT page, count(*)::int AS shown, count(DISTINCT visit)::int AS visits FROM collected WHERE sent_as = $1 AND kind = 'page' GROUP BY page ORDER BY page",
      ),
      days: await ask(
        "SELECT to_char(at, 'YYYY-MM-DD') AS day, count(DISTINCT visit)::int AS visits, count(*)::int AS events FROM collected WHERE sent_as = $1 GROUP BY 1 ORDER BY 1",
      ),
      kinds: await ask('SELECT kind, count(*)::int AS count FROM collected WHERE sent_as = $1 GROUP BY kind ORDER BY count DESC, kind'),
      most: await ask(
        `SELECT kind, what, count(*)::int AS count FROM collected WHERE sent_as = $1 AND what IS NOT NULL GROUP BY kind, what ORDER BY count DESC, kind, what LIMIT ${MOST_LISTED}`,
      ),
      latest: (
        await ask<{ at: Date | string; kind: Measures['latest'][number]['kind']; page: number; what: string | null }>(
          `SELECT at, kind, page, what FROM collected WHERE sent_as = $1 ORDER BY at DESC LIMIT ${MOST_LISTED}`,
        )
      ).map((r) => ({ ...r, at: new Date(r.at).toISOString() })),
    };
  }

  async clear(id: string): Promise<void> {
    await this.db.query('DELETE FROM collected WHERE sent_as = $1', [id]);
  }
}
