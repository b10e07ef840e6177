import { randomUUID } from 'node:crypto';
import { FolioError } from '@elastic-folio/core/node';
import { TranslationJob } from '@elastic-folio/core/api';
import type { JobState, NewJob } from '@elastic-folio/core/api';
import type { Analysis } from '@elastic-folio/core/language';
import { fromJson } from '../database/json.ts';
import type { Db } from '../database/db.ts';

const OWNER = 'desk';
const DAY_MS = 86_400_000;

interface Row {
  job: unknown;
  link: string;
}

/** Which states a job may come to from where it is. */
const NEXT: Record<JobState, readonly JobState[]> = {
  invited: ['accepted', 'declined', 'withdrawn'],
  accepted: ['done', 'declined', 'withdrawn'],
  done: ['accepted', 'withdrawn'],
  declined: ['invited'],
  withdrawn: ['invited'],
};

/** Work that was asked of translators, by documents. */
export class TranslationJobs {
  constructor(private readonly db: Db) {}

  async add(
    folio: string,
    asked: NewJob,
    counted: { units: string[]; analysis: Analysis },
  ): Promise<{ job: TranslationJob; link: string }> {
    const { days, ...rest } = asked;
    const now = Date.now();
    const job: TranslationJob = {
      ...rest,
      ...counted,
      id: randomUUID(),
      folio,
      // The service takes whatever it is given.
      state: asked.for.kind === 'service' ? 'accepted' : 'invited',
      asked: new Date(now).toISOString(),
      until: new Date(now + days * DAY_MS).toISOString(),
      answered: null,
      finished: null,
      delivered: null,
    };
    const link = randomUUID();
    const deliverAt = asked.for.kind === 'service' ? new Date(now + asked.for.seconds * 1000) : null;
    await this.db.query(
      'INSERT INTO translation_jobs (id, owner, folio, state, link, job, deliver_at) VALUES ($1, $2, $3, $4, $5, $6, $7)',
      [job.id, OWNER, folio, job.state, link, JSON.stringify(job), deliverAt],
    );
    return { job, link };
  }

  /** The newest first. */
  async ofDocument(folio: string): Promise<TranslationJob[]> {
    const rows = await this.db.query<Row>('SELECT job, link FROM translation_jobs WHERE owner = $1 AND folio = $2 ORDER BY asked_at DESC', [
      OWNER,
      folio,
    ]);
    return rows.map(read);
  }

  async get(id: string): Promise<{ job: TranslationJob; link: string }> {
    const [row] = await this.db.query<Row>('SELECT job, link FROM translation_jobs WHERE owner = $1 AND id = $2', [OWNER, id]);
    if (!row) throw new FolioError('job.none', 'This job is not there any more.', 'Ask whoever sent it.');
    return { job: read(row), link: row.link };
  }

  /** Brings a job to another state; refused where it cannot come to that from where it is. */
  async move(id: string, to: JobState): Promise<TranslationJob> {
    const { job } = await this.get(id);
    if (!NEXT[job.state].includes(to))
      throw new FolioError('job.state', `This job is ${WORDS[job.state]} already.`, 'Reload the page to see how it stands.');
    const now = new Date().toISOString();
    const moved: TranslationJob = {
      ...job,
      state: to,
      ...((to === 'accepted' || to === 'declined') && { answered: now }),
      finished: to === 'done' ? now : null,
    };
    return this.keep(moved, job.state);
  }

  /** A new link for a new mail: the one before opens nothing any more. */
  async again(id: string, days: number): Promise<{ job: TranslationJob; link: string }> {
    const { job } = await this.get(id);
    const state = job.state === 'declined' || job.state === 'withdrawn' ? 'invited' : job.state;
    const link = randomUUID();
    const asked = await this.keep({ ...job, state, until: new Date(Date.now() + days * DAY_MS).toISOString() }, job.state);
    await this.db.query('UPDATE translation_jobs SET link = $2 WHERE id = $1', [id, link]);
    return { job: asked, link };
  }

  /** What a job delivered as a file. */
  async deliver(id: string, file: { name: string; text: string }): Promise<TranslationJob> {
    const { job } = await this.get(id);
    const done = await this.keep({ ...job, state: 'done', finished: new Date().toISOString(), delivered: file.name }, job.state);
    await this.db.query('UPDATE translation_jobs SET delivery = $2, deliver_at = NULL WHERE id = $1', [id, file.text]);
    return done;
  }

  async delivery(id: string): Promise<{ name: string; text: string }> {
    const [row] = await this.db.query<Row & { delivery: string | null }>(
      'SELECT job, link, delivery FROM translation_jobs WHERE owner = $1 AND id = $2',
      [OWNER, id],
    );
    const name = row && read(row).delivered;
    if (!row?.delivery || !name) throw new FolioError('delivery.none', 'Nothing was delivered yet.', 'Wait for it.');
    return { name, text: row.delivery };
  }

  /** Jobs that the simulated service has not delivered, and when it will. */
  async waiting(): Promise<{ id: string; at: Date }[]> {
    const rows = await this.db.query<{ id: string; deliver_at: Date }>(
      "SELECT id, deliver_at FROM translation_jobs WHERE deliver_at IS NOT NULL AND state = 'accepted'",
    );
    return rows.map((r) => ({ id: r.id, at: new Date(r.deliver_at) }));
  }

  async remove(id: string): Promise<void> {
    await this.db.query('DELETE FROM translation_jobs WHERE owner = $1 AND id = $2', [OWNER, id]);
  }

  private async keep(job: TranslationJob, from: JobState): Promise<TranslationJob> {
    const [kept] = await this.db.query('UPDATE translation_jobs SET state = $2, job = $3 WHERE id = $1 AND state = $4 RETURNING id', [
      job.id,
      job.state,
      JSON.stringify(job),
      from,
    ]);
    if (!kept) throw new FolioError('job.state', 'This job has changed meanwhile.', 'Reload the page to see how it stands.');
    return job;
  }
}

const WORDS: Record<JobState, string> = {
  invited: 'asked for',
  accepted: 'taken on',
  declined: 'declined',
  done: 'delivered',
  withdrawn: 'taken back',
};

const read = ({ job }: Pick<Row, 'job'>): TranslationJob => TranslationJob.parse(fromJson(job));
