import { randomUUID } from 'node:crypto';
import type { Db } from '../database/db.ts';
import type { Run } from '@elastic-folio/core/api';

interface Row {
  id: string;
  folio: string;
  recipe: string;
  output: string;
  state: Run['state'];
  pages_done: number;
  pages_total: number;
  input_hash: string;
  message: string | null;
  advice: string | null;
  counts: Run['counts'];
  valid: boolean | null;
  files: Run['files'];
  created_at: Date;
  finished_at: Date | null;
}

const toRun = (r: Row): Run => ({
  id: r.id,
  folio: r.folio,
  recipe: r.recipe,
  output: r.output,
  state: r.state,
  pagesDone: r.pages_done,
  pagesTotal: r.pages_total,
  inputHash: r.input_hash,
  message: r.message,
  advice: r.advice,
  counts: r.counts,
  valid: r.valid,
  files: r.files,
  createdAt: new Date(r.created_at).toISOString(),
  finishedAt: r.finished_at && new Date(r.finished_at).toISOString(),
});

/** Runs in the database; every change of state is one statement that only succeeds from the right state. */
export class RunStore {
  constructor(private readonly db: Db) {}

  async create(folio: string, recipe: string, output: string): Promise<Run> {
    const [row] = await this.db.query<Row>(
      "INSERT INTO runs (id, owner, folio, recipe, output, state) VALUES ($1, 'desk', $2, $3, $4, 'waiting') RETURNING *",
      [randomUUID(), folio, recipe, output],
    );
    return toRun(row!);
  }

  async get(id: string): Promise<Run | null> {
    const [row] = await this.db.query<Row>('SELECT * FROM runs WHERE id = $1', [id]);
    return row ? toRun(row) : null;
  }

  /** The newest runs of a document, or of all. */
  async list(folio?: string): Promise<Run[]> {
    const rows = folio
      ? await this.db.query<Row>('SELECT * FROM runs WHERE folio = $1 ORDER BY created_at DESC LIMIT 200', [folio])
      : await this.db.query<Row>('SELECT * FROM runs ORDER BY created_at DESC LIMIT 200');
    return rows.map(toRun);
  }

  /** Takes a waiting run; null where it is not waiting any more. */
  async claim(id: string, inputHash: string): Promise<Run | null> {
    const [row] = await this.db.query<Row>(
      "UPDATE runs SET state = 'running', attempts = attempts + 1, heartbeat_at = now(), input_hash = $2 WHERE id = $1 AND state = 'waiting' AND NOT cancel RETURNING *",
      [id, inputHash],
    );
    return row ? toRun(row) : null;
  }

  /** Records progress and says whether the run was asked to stop. */
  async beat(id: string, done: number, total: number): Promise<{ run: Run; cancel: boolean } | null> {
    const [row] = await this.db.query<Row & { cancel: boolean }>(
      "UPDATE runs SET pages_done = $2, pages_total = $3, heartbeat_at = now() WHERE id = $1 AND state = 'running' RETURNING *",
      [id, done, total],
    );
    return row ? { run: toRun(row), cancel: row.cancel } : null;
  }

  async finish(id: string, result: { counts: Run['counts']; valid: boolean; files: Run['files'] }): Promise<Run | null> {
    const [row] = await this.db.query<Row>(
      "UPDATE runs SET state = 'done', counts = $2, valid = $3, files = $4, finished_at = now() WHERE id = $1 AND state = 'running' AND NOT cancel RETURNING *",
      [id, JSON.stringify(result.counts), result.valid, JSON.stringify(result.files)],
    );
    return row ? toRun(row) : null;
  }

  async fail(id: string, message: string, advice: string): Promise<Run | null> {
    const [row] = await this.db.query<Row>(
      "UPDATE runs SET state = 'failed', message = $2, advice = $3, finished_at = now() WHERE id = $1 AND state IN ('running', 'waiting') RETURNING *",
      [id, message, advice],
    );
    return row ? toRun(row) : null;
  }

  /** Asks a run to stop; one that has not begun is cancelled at once. */
  async cancel(id: string): Promise<Run | null> {
    const [row] = await this.db.query<Row>(
      "UPDATE runs SET cancel = true, state = CASE WHEN state = 'waiting' THEN 'cancelled' ELSE state END, finished_at = CASE WHEN state = 'waiting' THEN now() ELSE finished_at END WHERE id = $1 AND state IN ('waiting', 'running') RETURNING *",
      [id],
    );
    return row ? toRun(row) : null;
  }

  async cancelled(id: string): Promise<Run | null> {
    const [row] = await this.db.query<Row>(
      "UPDATE runs SET state = 'cancelled', finished_at = now() WHERE id = $1 AND state = 'running' RETURNING *",
      [id],
    );
    return row ? toRun(row) : null;
  }

  /**
   * Runs a killed server left: they wait again, twice at most, then they are marked as failed. With
   * several processes only runs without a sign of life for half a minute count as left.
   */
  async recover(alone: boolean): Promise<string[]> {
    const left = alone ? '' : "AND heartbeat_at < now() - interval '30 seconds'";
    await this.db.query(`UPDATE runs SET state = 'cancelled', finished_at = now() WHERE state = 'running' AND cancel ${left}`);
    await this.db.query(
      `UPDATE runs SET state = 'failed', message = 'The program was stopped three times while this was being made.', advice = 'Start it again; if it happens once more, leave out pages to find the one it stops at.', finished_at = now() WHERE state = 'running' AND attempts >= 3 ${left}`,
    );
    await this.db.query(`UPDATE runs SET state = 'waiting', pages_done = 0 WHERE state = 'running' ${left}`);
    return (await this.db.query<{ id: string }>("SELECT id FROM runs WHERE state = 'waiting' ORDER BY created_at")).map((r) => r.id);
  }
}
