import { z } from 'zod';
import { JobOnList, Letter, NewJob, Notice } from '@elastic-folio/core/api';
import type { TranslationJob } from '@elastic-folio/core/api';
import { FolioError } from '@elastic-folio/core/node';
import { progressOf, standingsOf } from '@elastic-folio/core/language';
import { resultOf } from '../conversion/resultOf.ts';
import type { Services } from '../services.ts';
import type { Api } from './route.ts';

const params = z.object({ id: z.string() });
const ofJob = z.object({ job: z.string() });
const names = new Intl.DisplayNames(['en'], { type: 'language' });
const onDay = (day: string): string => new Date(day).toLocaleDateString('en-GB', { dateStyle: 'long', timeZone: 'UTC' });
const nameOf = (language: string): string => names.of(language) ?? language;

/** Work asked of translators: mails with links, the simulated service, notices, and the outbox. */
export function jobRoutes(api: Api, s: Services): void {
  const onList = async ({ units, ...job }: TranslationJob): Promise<JobOnList> => {
    const { folio } = await s.documents.get(job.folio);
    const { all, done } = progressOf(standingsOf(folio, job.language, new Set(units)));
    return { ...job, progress: { all, done } };
  };
  const tell = (folio: string): void => s.events.tell({ type: 'jobs', folio });

  /** The mail that asks somebody; its link opens the desk of this job alone. */
  const invite = async (job: TranslationJob, link: string): Promise<void> => {
    if (job.for.kind !== 'person') return;
    const { folio } = await s.documents.get(job.folio);
    const { title, language } = folio.head.metadata;
    const token = await s.links.sign({ job: job.id, link }, new Date(job.until));
    const address = `http://127.0.0.1:${s.config.guestPort}/t/${token}/`;
    const { words, segments } = job.analysis.total;
    await s.outbox.send(job.id, {
      to: { name: job.for.name, address: job.for.address },
      subject: `“${title}”, from ${nameOf(language)} into ${nameOf(job.language)}`,
      link: address,
      text: [
        `${job.for.name},`,
        `could you translate “${title}” from ${nameOf(language)} into ${nameOf(job.language)}? It is ${words} words in ${segments} segments.`,
        ...(job.due === null ? [] : [`It is needed by ${onDay(job.due)}.`]),
        ...(job.message ? [job.message] : []),
        `This link shows the texts on their pages; take it on there, or say no. It is for you alone, and good until ${onDay(job.until)}:`,
        address,
      ].join('\n\n'),
    });
  };

  api.route(
    { method: 'get', path: '/folios/:id/jobs', says: 'What was asked of translators', params, answer: z.array(JobOnList) },
    async ({ params: p }) => Promise.all((await s.jobs.ofDocument(p.id)).map(onList)),
  );

  api.route(
    {
      method: 'post',
      path: '/folios/:id/jobs',
      says: 'Ask a translator by mail, or the simulated service',
      params,
      body: NewJob,
      answer: JobOnList,
    },
    async ({ params: p, body }) => {
      const { folio, files, library = [] } = await s.documents.loaded(p.id);
      if (!folio.editions[body.language])
        throw new FolioError('edition.none', `There is no edition in “${body.language}”.`, 'Make it first.');
      if (body.for.kind === 'person' && body.due !== null && body.due < new Date().toISOString().slice(0, 10))
        throw new FolioError('job.due', 'The day it is needed by is over.', 'Choose a later one.');
      const memory = await s.memory.of(folio.head.metadata.language, { target: body.language });
      const task = { folio, files: [...files], library, blobs: s.paths.blobs };
      const counted = resultOf(await s.pool.count({ ...task, chosen: body.chosen, language: body.language, memory }));
      if (!counted.units.length)
        throw new FolioError('job.nothing', 'Nothing of the document goes out with these settings.', 'Let more of its texts go out.');
      const { job, link } = await s.jobs.add(p.id, body, counted);
      await invite(job, link);
      if (job.for.kind === 'service') s.service.at(job.id, new Date(Date.parse(job.asked) + job.for.seconds * 1000));
      tell(p.id);
      return onList(job);
    },
  );

  api.route(
    {
      method: 'post',
      path: '/jobs/:job/again',
      says: 'Send the mail of a job once more, with a new link; the one before opens nothing any more',
      params: ofJob,
      body: z.object({ days: z.number().int().min(1).max(365).default(30) }),
      answer: JobOnList,
    },
    async ({ params: p, body }) => {
      const { job, link } = await s.jobs.again(p.job, body.days);
      await invite(job, link);
      tell(job.folio);
      return onList(job);
    },
  );

  api.route(
    {
      method: 'post',
      path: '/jobs/:job/state',
      says: 'Take a job back, or open one again that was delivered',
      params: ofJob,
      body: z.object({ state: z.enum(['withdrawn', 'accepted']) }),
      answer: JobOnList,
    },
    async ({ params: p, body }) => {
      const { job: before } = await s.jobs.get(p.job);
      if (body.state === 'accepted' && before.state !== 'done')
        throw new FolioError('job.state', 'Only what was delivered can be opened again.', 'Wait for the translator.');
      const job = await s.jobs.move(p.job, body.state);
      tell(job.folio);
      return onList(job);
    },
  );

  api.route(
    { method: 'delete', path: '/jobs/:job', says: 'Forget a job, its mails and notices', params: ofJob, answer: z.object({}) },
    async ({ params: p }) => {
      const { job } = await s.jobs.get(p.job);
      await s.jobs.remove(p.job);
      tell(job.folio);
      return {};
    },
  );

  api.route(
    { method: 'get', path: '/jobs/:job/delivery', says: 'The file that a job delivered', params: ofJob },
    async ({ params: p, res }) => {
      const { name, text } = await s.jobs.delivery(p.job);
      res.attachment(name);
      res.type('application/xliff+xml').send(text);
    },
  );

  api.route({ method: 'get', path: '/notices', says: 'What translators said, the newest first', answer: z.array(Notice) }, () =>
    s.notices.list(),
  );
  api.route(
    {
      method: 'post',
      path: '/notices/seen',
      says: 'Notices were seen',
      body: z.object({ ids: z.array(z.string()).max(500) }),
      answer: z.object({}),
    },
    async ({ body }) => {
      await s.notices.seen(body.ids);
      return {};
    },
  );

  api.route({ method: 'get', path: '/outbox', says: 'The simulated outbox, the newest first', answer: z.array(Letter) }, () =>
    s.outbox.list(),
  );
  api.route(
    { method: 'get', path: '/outbox/:letter', says: 'A mail as it would leave', params: z.object({ letter: z.string() }) },
    async ({ params: p, res }) => {
      const raw = await s.outbox.raw(p.letter);
      if (raw === null) throw new FolioError('letter.none', 'This mail is not there any more.', 'Reload the page.');
      res.attachment('mail.eml');
      res.type('message/rfc822').send(raw);
    },
  );
}
