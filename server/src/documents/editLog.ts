import type { LogRow } from '@elastic-folio/core';
import type { Db, Query } from '../database/db.ts';

/** The log of edits in the database: rows in the order in which they were confirmed, numbered from 1 for each document. */
export class EditLog {
  constructor(
    private readonly db: Pick<Db, 'query'>,
    private readonly owner: string,
  ) {}

  async since(folio: string, seq: number, query: Query = this.db.query): Promise<LogRow[]> {
    return (await query<Raw>('SELECT * FROM edits WHERE folio = $1 AND seq > $2 ORDER BY seq', [folio, seq])).map(toLogRow);
  }

  /** The newest rows of one person, oldest first. */
  async of(folio: string, actor: string, most: number): Promise<LogRow[]> {
    const rows = await this.db.query<Raw>('SELECT * FROM edits WHERE folio = $1 AND actor = $2 ORDER BY seq DESC LIMIT $3', [
      folio,
      actor,
      most,
    ]);
    return rows.reverse().map(toLogRow);
  }

  async named(folio: string, uid: string): Promise<LogRow | undefined> {
    const [row] = await this.db.query<Raw>('SELECT * FROM edits WHERE folio = $1 AND uid = $2', [folio, uid]);
    return row && toLogRow(row);
  }

  /** Which of some names are those of rows already. */
  async knownOf(folio: string, uids: readonly string[]): Promise<Set<string>> {
    const rows = await this.db.query<{ uid: string }>(
      'SELECT uid FROM edits WHERE folio = $1 AND uid IN (SELECT jsonb_array_elements_text($2::jsonb))',
      [folio, uids],
    );
    return new Set(rows.map((r) => r.uid));
  }

  /**
   * Writes rows on top of row `seq` of a document, in one statement: all of them or, where another process has written a row
   * meanwhile or the document is gone, none; then the answer is false. Throws `NamedBefore` where an edit is in the log already.
   */
  async append(query: Query, folio: string, seq: number, title: string, rows: readonly LogRow[]): Promise<boolean> {
    try {
      const [answer] = await query<{ done: boolean }>('SELECT append_edits($1, $2, $3, $4, $5) AS done', [
        folio,
        seq,
        title,
        this.owner,
        JSON.stringify(rows),
      ]);
      return answer!.done;
    } catch (error) {
      if ((error as { code?: string }).code === UNIQUE_VIOLATION) throw new NamedBefore();
      throw error;
    }
  }
}

/** An edit of this name is in the log. */
export class NamedBefore extends Error {}

/** PostgreSQL, appendix A: `unique_violation`. */
const UNIQUE_VIOLATION = '23505';

type Raw = Omit<LogRow, 'group' | 'at' | 'uid'> & { burst: string; at: Date; uid: string | null };
const toLogRow = (r: Raw): LogRow => ({
  seq: r.seq,
  base: r.base,
  actor: r.actor,
  at: new Date(r.at).toISOString(),
  group: r.burst,
  ...(r.uid !== null && { uid: r.uid }),
  edit: r.edit,
  patches: r.patches,
  inverse: r.inverse,
  touched: r.touched,
});
