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
  publish: boolean;
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
  publish: r.publish,
  createdAt: new Date(r.created_at).toISOString(),
  finishedAt: r.finished_at && new Date(r.finished_at).toISOString(),
});

/** What somebody wants made. */
export interface Asked {
  folio: string;
  recipe: string;
  output: string;
  /** Whoever asks: people have their turns one after another. */
  by: string;
  /** The result is published as soon as it is there. */
  publish?: boolean;
}

/** A run in the hands of one worker; `attempt` tells it from the same run in other hands, before or after. */
export interface Claimed {
  run: Run;
  attempt: number;
}

/** A worker without a sign of life for so long has been stopped or killed. With the sweep each 5 s a run is taken over within 15 s. */
const STALE = "interval '10 seconds'";
/** A run is begun so often: for the first time, and after two workers that were killed while they made it. */
const ATTEMPTS = 3;

/**
 * Runs in the database, which is their queue as well. Every change of state is one statement that only succeeds from the right
 * state and in the right hands.
 */
export class RunStore {
  constructor(private readonly db: Db) {}

  /** Asks for runs, all or none; one that waits already for the same output is not asked for twice. */
  ask(asked: readonly Asked[]): Promise<Run[]> {
    return this.db.transaction(async (query) => {
      const runs: Run[] = [];
      for (const { folio, recipe, output, by, publish = false } of asked) {
        const [waits] = await query<Row>(
          "UPDATE runs SET publish = publish OR $3 WHERE folio = $1 AND recipe = $2 AND state = 'waiting' RETURNING *",
          [folio, recipe, publish],
        );
        const [row] = waits
          ? [waits]
          : await query<Row>(
              "INSERT INTO runs (id, owner, folio, recipe, output, state, asked_by, publish) VALUES ($1, 'desk', $2, $3, $4, 'waiting', $5, $6) RETURNING *",
              [randomUUID(), folio, recipe, output, by, publish],
            );
        runs.push(toRun(row!));
      }
      return runs;
    });
  }

  /** Lets a run that is being made be published when it is there; null where it has ended. */
  async publishWhenDone(id: string): Promise<Run | null> {
    return this.changed("UPDATE runs SET publish = true WHERE id = $1 AND state IN ('waiting', 'running') AND NOT cancel RETURNING *", [
      id,
    ]);
  }

  async get(id: string): Promise<Run | null> {
    return this.changed('SELECT * FROM runs WHERE id = $1', [id]);
  }

  /** The newest runs of a document, or of all. */
  async list(folio?: string): Promise<Run[]> {
    const rows = folio
      ? await this.db.query<Row>('SELECT * FROM runs WHERE folio = $1 ORDER BY created_at DESC LIMIT 200', [folio])
      : await this.db.query<Row>('SELECT * FROM runs ORDER BY created_at DESC LIMIT 200');
    return rows.map(toRun);
  }

  /** Of each recipe of some documents: its newest run, the newest that is done, and those that wait or are being made; the newest first. */
  async newestOf(folios: readonly string[]): Promise<Run[]> {
    const these = 'folio IN (SELECT jsonb_array_elements_text($1::jsonb))';
    const newest = (only: string): string =>
      `id IN (SELECT DISTINCT ON (folio, recipe) id FROM runs WHERE ${these} ${only} ORDER BY folio, recipe, created_at DESC)`;
    const rows = await this.db.query<Row>(
      `SELECT * FROM runs WHERE ${these} AND (state IN ('waiting', 'running') OR ${newest('')} OR ${newest("AND state = 'done'")})
       ORDER BY created_at DESC`,
      [folios],
    );
    return rows.map(toRun);
  }

  /** The runs that wait or are being made, by whomever. */
  async open(): Promise<Run[]> {
    return (await this.db.query<Row>("SELECT * FROM runs WHERE state IN ('waiting', 'running') ORDER BY created_at")).map(toRun);
  }

  /**
   * Takes the next run: of whoever has the fewest in the making, then of the document that has, then the one that has waited
   * longest. `anyDocument` false: only of documents of which nothing is being made. Null where there is none.
   */
  async claim(worker: string, anyDocument: boolean): Promise<Claimed | null> {
    const [row] = await this.db.query<Row & { attempts: number }>(
      `UPDATE runs SET state = 'running', attempts = attempts + 1, worker = $1, heartbeat_at = now(), pages_done = 0, input_hash = ''
       WHERE state = 'waiting' AND id = (
         SELECT w.id FROM runs w WHERE w.state = 'waiting' AND ($2 OR NOT EXISTS (SELECT FROM runs r WHERE r.state = 'running' AND r.folio = w.folio))
         ORDER BY
           (SELECT count(*) FROM runs r WHERE r.state = 'running' AND r.asked_by = w.asked_by),
           (SELECT count(*) FROM runs r WHERE r.state = 'running' AND r.folio = w.folio),
           w.created_at, w.id
         LIMIT 1 FOR UPDATE OF w SKIP LOCKED)
       RETURNING *`,
      [worker, anyDocument],
    );
    return row ? { run: toRun(row), attempt: row.attempts } : null;
  }

  /** Says what a run is made of, before it is read. */
  begin({ run, attempt }: Claimed, inputHash: string): Promise<Run | null> {
    return this.changed("UPDATE runs SET input_hash = $3 WHERE id = $1 AND attempts = $2 AND state = 'running' RETURNING *", [
      run.id,
      attempt,
      inputHash,
    ]);
  }

  /** Records progress and says whether the run was asked to stop; null where it is in other hands. */
  async beat({ run, attempt }: Claimed, done: number, total: number): Promise<{ run: Run; cancel: boolean } | null> {
    const [row] = await this.db.query<Row & { cancel: boolean }>(
      "UPDATE runs SET pages_done = $3, pages_total = $4, heartbeat_at = now() WHERE id = $1 AND attempts = $2 AND state = 'running' RETURNING *",
      [run.id, attempt, done, total],
    );
    return row ? { run: toRun(row), cancel: row.cancel } : null;
  }

  finish({ run, attempt }: Claimed, result: { counts: Run['counts']; valid: boolean; files: Run['files'] }): Promise<Run | null> {
    return this.changed(
      "UPDATE runs SET state = 'done', counts = $3, valid = $4, files = $5, pages_done = pages_total, finished_at = now() WHERE id = $1 AND attempts = $2 AND state = 'running' AND NOT cancel RETURNING *",
      [run.id, attempt, JSON.stringify(result.counts), result.valid, JSON.stringify(result.files)],
    );
  }

  fail({ run, attempt }: Claimed, message: string, advice: string): Promise<Run | null> {
    return this.changed(
      "UPDATE runs SET state = 'failed', message = $3, advice = $4, finished_at = now() WHERE id = $1 AND attempts = $2 AND state = 'running' RETURNING *",
      [run.id, attempt, message, advice],
    );
  }

  /** Says something of a run that is done: that it could not be published. */
  remark(id: string, message: string, advice: string): Promise<Run | null> {
    return this.changed("UPDATE runs SET publish = false, message = $2, advice = $3 WHERE id = $1 AND state = 'done' RETURNING *", [
      id,
      message,
      advice,
    ]);
  }

  /** Asks a run to stop; one that nobody is making, or whose worker gives no sign of life, ends at once. */
  cancel(id: string): Promise<Run | null> {
    const atOnce = `state = 'waiting' OR heartbeat_at < now() - ${STALE}`;
    return this.changed(
      `UPDATE runs SET cancel = true, state = CASE WHEN ${atOnce} THEN 'cancelled' ELSE state END, finished_at = CASE WHEN ${atOnce} THEN now() ELSE finished_at END WHERE id = $1 AND state IN ('waiting', 'running') RETURNING *`,
      [id],
    );
  }

  cancelled({ run, attempt }: Claimed): Promise<Run | null> {
    return this.changed(
      "UPDATE runs SET state = 'cancelled', finished_at = now() WHERE id = $1 AND attempts = $2 AND state = 'running' AND cancel RETURNING *",
      [run.id, attempt],
    );
  }

  /** Gives a run back unmade, as a worker does that ends in good order: it waits again, and no attempt is counted. */
  release({ run, attempt }: Claimed): Promise<Run | null> {
    return this.changed(
      "UPDATE runs SET state = 'waiting', attempts = attempts - 1, worker = NULL, pages_done = 0 WHERE id = $1 AND attempts = $2 AND state = 'running' AND NOT cancel RETURNING *",
      [run.id, attempt],
    );
  }

  /**
   * Takes over what workers have left that were killed: it waits again, or has failed after so many attempts, or is cancelled
   * where that was asked for. `mine` are being made here. `alone`: there is no other worker, so that whatever is not made here has
   * been left. Gives the runs that ended by it.
   */
  async takeOver(mine: readonly string[], alone: boolean): Promise<Run[]> {
    const left = `state = 'running' AND id NOT IN (SELECT jsonb_array_elements_text($1::jsonb)) ${alone ? '' : `AND heartbeat_at < now() - ${STALE}`}`;
    const params = [mine];
    const cancelled = await this.db.query<Row>(
      `UPDATE runs SET state = 'cancelled', finished_at = now() WHERE ${left} AND cancel RETURNING *`,
      params,
    );
    const failed = await this.db.query<Row>(
      `UPDATE runs SET state = 'failed', message = 'The program was stopped three times while this was being made.', advice = 'Start it again; if it happens once more, leave out pages to find the one it stops at.', finished_at = now() WHERE ${left} AND attempts >= ${ATTEMPTS} RETURNING *`,
      params,
    );
    const again = await this.db.query<Row>(
      `UPDATE runs SET state = 'waiting', worker = NULL, pages_done = 0 WHERE ${left} RETURNING *`,
      params,
    );
    return [...cancelled, ...failed, ...again].map(toRun);
  }

  private async changed(sql: string, params: readonly unknown[]): Promise<Run | null> {
    const [row] = await this.db.query<Row>(sql, params);
    return row ? toRun(row) : null;
  }
}
