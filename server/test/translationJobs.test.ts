import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { jwtVerify, SignJWT } from 'jose';
import { NewJob } from '@elastic-folio/core/api';
import type { JobState, TranslationJob } from '@elastic-folio/core/api';
import { Analysis, fromReadable, readable } from '@elastic-folio/core/language';
import type { Db } from '../src/database/db.ts';
import { migrate } from '../src/database/migrate.ts';
import { EventHub } from '../src/events.ts';
import { InvitationLinks } from '../src/languages/invitationLinks.ts';
import { Notices } from '../src/languages/notices.ts';
import { Outbox } from '../src/languages/outbox.ts';
import { Terms } from '../src/languages/terms.ts';
import { TranslationJobs } from '../src/languages/translationJobs.ts';
import { TranslationMemory } from '../src/languages/translationMemory.ts';
import { embeddedDb } from './support/embeddedDb.ts';

let db: Db;
let jobs: TranslationJobs;
beforeAll(async () => {
  db = await embeddedDb();
  await migrate(db, join(dirname(dirname(fileURLToPath(import.meta.url))), 'migrations'));
  await db.query("INSERT INTO folios (id, owner, title, source_name) VALUES ('f', 'desk', 'Flyer', 'flyer.efolio')");
  jobs = new TranslationJobs(db);
}, 60_000);
afterAll(() => db.close());

const none = { segments: 1, words: 2, characters: 9 };
const analysis = Analysis.parse({
  total: none,
  bands: Object.fromEntries(['inContext', 'repeated', 'exact', '95-99', '85-94', '75-84', '50-74', 'new'].map((b) => [b, none])),
});
const person = { kind: 'person', name: 'Ilse', address: 'ilse@wortwerk.example' } as const;
const asked = (more: object = {}) => jobs.add('f', NewJob.parse({ language: 'de', for: person, ...more }), { units: ['p1'], analysis });

describe('links of invitations (JSON Web Token, RFC 7519)', () => {
  const later = new Date(Date.now() + 60_000);
  test('one that was signed here opens, by whichever process', async () => {
    const token = await new InvitationLinks(db).sign({ job: 'j', link: 'l' }, later);
    expect(await new InvitationLinks(db).open(token)).toEqual({ job: 'j', link: 'l' });
  });
  test('after its time it opens nothing, and says why (4.1.4)', async () => {
    const links = new InvitationLinks(db);
    const late = await links.sign({ job: 'j', link: 'l' }, new Date(Date.now() - 1000));
    await expect(links.open(late)).rejects.toThrow('The time of this invitation is over.');
  });
  test('of another key, for another audience, or without what it is for, it opens nothing (4.1.3)', async () => {
    const links = new InvitationLinks(db);
    const [row] = await db.query<{ secret: string }>('SELECT secret FROM signing_keys');
    const key = new Uint8Array(Buffer.from(row!.secret, 'base64'));
    const made = (audience: string, secret: Uint8Array, subject?: string): Promise<string> => {
      const token = new SignJWT({}).setProtectedHeader({ alg: 'HS256' }).setJti('l').setAudience(audience).setExpirationTime(later);
      return (subject === undefined ? token : token.setSubject(subject)).sign(secret);
    };
    for (const token of [
      await made('translation-desk', new Uint8Array(32).fill(7), 'j'),
      await made('somewhere-else', key, 'j'),
      await made('translation-desk', key),
    ])
      await expect(links.open(token)).rejects.toThrow('This link does not open anything.');
    expect((await jwtVerify(await made('translation-desk', key, 'j'), key)).payload.sub).toBe('j');
  });
});

describe('where a job may come to', () => {
  const ALL: JobState[] = ['invited', 'accepted', 'declined', 'done', 'withdrawn'];
  const WAYS: Record<JobState, JobState[]> = {
    invited: [],
    accepted: ['accepted'],
    declined: ['declined'],
    done: ['accepted', 'done'],
    withdrawn: ['withdrawn'],
  };
  const MAY: Record<JobState, JobState[]> = {
    invited: ['accepted', 'declined', 'withdrawn'],
    accepted: ['declined', 'done', 'withdrawn'],
    declined: ['invited'],
    done: ['accepted', 'withdrawn'],
    withdrawn: ['invited'],
  };
  test.each(ALL)('from %s', async (from) => {
    const reached: JobState[] = [];
    for (const to of ALL) {
      const { job } = await asked();
      for (const step of WAYS[from]) await jobs.move(job.id, step);
      await jobs.move(job.id, to).then(
        (moved: TranslationJob) => reached.push(moved.state),
        (e: Error) => expect(e.message).toMatch(/^This job is .* already\.$/),
      );
    }
    expect(reached.sort()).toEqual([...MAY[from]].sort());
  });
  test('two answers at one time: one of them counts', async () => {
    const { job } = await asked();
    const answers = await Promise.allSettled([jobs.move(job.id, 'accepted'), jobs.move(job.id, 'declined')]);
    expect(answers.filter((a) => a.status === 'fulfilled')).toHaveLength(1);
  });
  test('asked again it has another link and another end, and keeps where it is', async () => {
    const { job, link } = await asked({ days: 1 });
    await jobs.move(job.id, 'accepted');
    const again = await jobs.again(job.id, 10);
    expect([again.link === link, again.job.state, again.job.until > job.until]).toEqual([false, 'accepted', true]);
    expect((await jobs.get(job.id)).link).toBe(again.link);
  });
  test('a delivery ends it, and can be had; the simulated service waits for nothing more', async () => {
    const { job } = await asked({ for: { kind: 'service', seconds: 60 } });
    expect((await jobs.waiting()).map((w) => w.id)).toContain(job.id);
    await expect(jobs.delivery(job.id)).rejects.toThrow('Nothing was delivered yet.');
    await jobs.deliver(job.id, { name: 'delivered.de.xlf', text: '<xliff/>' });
    expect(await jobs.delivery(job.id)).toEqual({ name: 'delivered.de.xlf', text: '<xliff/>' });
    expect((await jobs.waiting()).map((w) => w.id)).not.toContain(job.id);
  });
  test('with it go its mails and notices', async () => {
    const { job } = await asked();
    const [outbox, notices] = [new Outbox(db), new Notices(db, new EventHub())];
    await outbox.send(job.id, { to: person, subject: 'Grüße, 日本', text: 'Können Sie?', link: null });
    await notices.add({ folio: 'f', job: job.id, kind: 'question', says: 'Du or Sie?' });
    const [letter] = await outbox.list();
    // RFC 2047: words beyond ASCII in a header are encoded.
    expect(await outbox.raw(letter!.id)).toMatch(/^Subject: =\?UTF-8\?/m);
    expect((await notices.list())[0]).toMatchObject({ title: 'Flyer', language: 'de', says: 'Du or Sie?', seen: false });
    await jobs.remove(job.id);
    expect([await outbox.list(), await notices.list()]).toEqual([[], []]);
  });
});

describe('what was translated before', () => {
  const unit = (source: string, target: string) => ({ source: fromReadable(source), target: fromReadable(target) });
  test('what is new in the memory is among the matches at once, with the codes of the text that asks', async () => {
    const memory = new TranslationMemory(db);
    const text = fromReadable('Bring {7}a lamp{/7}.');
    expect(await memory.matches('en', 'de', text)).toEqual([]);
    await memory.add('en', 'de', [unit('Bring {1}a lamp{/1}.', 'Mit {1}Lampe{/1}.')]);
    expect((await memory.matches('en', 'de-AT', text)).map((m) => [m.percent, readable(m.target)])).toEqual([[100, 'Mit {7}Lampe{/7}.']]);
    const { entries } = await memory.search('en', 'de', 'lampe');
    await memory.forget('en', 'de', entries[0]!.entry);
    expect(await memory.matches('en', 'de', text)).toEqual([]);
    await expect(memory.forget('en', 'de', entries[0]!.entry)).rejects.toThrow('not in the memory any more');
  });
  test('lengths of both languages are summed over all of it', async () => {
    const memory = new TranslationMemory(db);
    await memory.add('en', 'fr', [unit('dome', 'coupole'), unit('lamp', 'lampe')]);
    expect(await memory.lengths('en', 'fr')).toEqual({ source: 8, target: 12, texts: 2 });
  });
  test('terms are kept once, whatever their case, with their newest note', async () => {
    const terms = new Terms(db);
    expect(await terms.take('en', 'de', [{ source: 'Dome', target: 'Kuppel' }])).toBe(1);
    expect(await terms.take('en-GB', 'de-AT', [{ source: 'dome', target: 'Kuppel', note: 'never „Dom“' }])).toBe(0);
    expect((await terms.of('en', 'de')).map(({ source, note }) => [source, note])).toEqual([['dome', 'never „Dom“']]);
  });
});
