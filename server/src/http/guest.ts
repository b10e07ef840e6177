import type { Request } from 'express';
import type { Folio } from '@elastic-folio/core';
import type { GuestJob, TranslationJob } from '@elastic-folio/core/api';
import { FolioError } from '@elastic-folio/core/node';
import { onlyOfJob } from '@elastic-folio/core/language';

/** What a link was found to stand for, for the routes behind it. */
export interface Guest {
  job: TranslationJob;
  /** Which mail they came with. */
  link: string;
  name: string;
}
const guests = new WeakMap<Request, Guest>();
export const guestOf = (req: Request): Guest => guests.get(req)!;
export const letIn = (req: Request, guest: Guest): void => void guests.set(req, guest);

/** The document of a job as its translator may see it; worked out once for a document as it is. */
export class JobDocuments {
  private readonly made = new Map<string, { of: Folio; folio: Folio }>();

  shown(job: TranslationJob, of: Folio): Folio {
    const known = this.made.get(job.id);
    if (known?.of === of) return known.folio;
    const folio = onlyOfJob(of, job);
    this.made.delete(job.id);
    this.made.set(job.id, { of, folio });
    if (this.made.size > 8) this.made.delete(this.made.keys().next().value!);
    return folio;
  }
}

/** Says that a job is not to be seen yet or any more, or not to be changed. */
export function mayOpen({ job }: Guest): void {
  if (job.state === 'invited') throw new FolioError('job.open', 'This job was not taken on yet.', 'Take it on, or say no.');
  if (job.state === 'declined')
    throw new FolioError('job.declined', 'You said no to this job.', 'Ask whoever sent it, if you have thought again.');
}
export function mayWrite(guest: Guest): void {
  mayOpen(guest);
  if (guest.job.state === 'done') throw new FolioError('job.done', 'This job is delivered.', 'Ask whoever sent it to open it again.');
}

/** What a translator is told of their job. */
export function guestJob({ job, name }: Guest, folio: Folio, progress: GuestJob['progress'], pages: number[]): GuestJob {
  const { id, folio: document, language, may, due, message, state, asked, until, answered, finished, units } = job;
  return {
    id,
    folio: document,
    language,
    may,
    due,
    message,
    state,
    asked,
    until,
    answered,
    finished,
    units,
    name,
    progress,
    pages,
    title: folio.head.metadata.title,
    source: folio.head.metadata.language,
    words: job.analysis.total.words,
  };
}
