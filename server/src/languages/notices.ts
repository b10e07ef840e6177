import { randomUUID } from 'node:crypto';
import type { Notice } from '@elastic-folio/core/api';
import type { Db } from '../database/db.ts';
import type { EventHub } from '../events.ts';

const OWNER = 'desk';
const MOST = 100;

type Row = Omit<Notice, 'at'> & { at: Date };

/** What the designer is told of jobs: taken on, refused, asked, delivered. */
export class Notices {
  constructor(
    private readonly db: Db,
    private readonly events: EventHub,
  ) {}

  async add(notice: Pick<Notice, 'folio' | 'job' | 'kind' | 'says'> & { unit?: string | undefined }): Promise<void> {
    await this.db.query('INSERT INTO notices (id, owner, folio, job, kind, says, unit) VALUES ($1, $2, $3, $4, $5, $6, $7)', [
      randomUUID(),
      OWNER,
      notice.folio,
      notice.job,
      notice.kind,
      notice.says,
      notice.unit ?? null,
    ]);
    this.events.tell({ type: 'jobs', folio: notice.folio });
  }

  /** The newest first. */
  async list(): Promise<Notice[]> {
    const rows = await this.db.query<Row>(
      `SELECT n.id, n.folio, f.title, n.job, j.job->>'language' AS language, n.kind, n.says, n.unit, n.at, n.seen
       FROM notices n JOIN folios f ON f.id = n.folio JOIN translation_jobs j ON j.id = n.job
       WHERE n.owner = $1 ORDER BY n.at DESC LIMIT $2`,
      [OWNER, MOST],
    );
    return rows.map((r) => ({ ...r, at: new Date(r.at).toISOString() }));
  }

  async seen(ids: readonly string[]): Promise<void> {
    for (const id of ids) await this.db.query('UPDATE notices SET seen = true WHERE owner = $1 AND id = $2', [OWNER, id]);
  }
}
