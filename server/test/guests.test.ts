import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { z } from 'zod';
import type { ServerEvent } from '@elastic-folio/core/api';
import { BackHome, GuestJob, JobOnList, Letter, Notice, OpenedDocument, ShelfEntry } from '@elastic-folio/core/api';
import { fromReadable } from '@elastic-folio/core/language';
import { editRequest, NOW } from './support/editRequest.ts';
import { RunningServer } from './support/runningServer.ts';

let server: RunningServer;
let flyer: string;
let almanac: string;
let job: JobOnList;
let link = '';
beforeAll(async () => {
  server = await RunningServer.start();
  const shelf = z.array(ShelfEntry).parse((await server.get('/api/folios')).json());
  const idOf = (title: string): string => shelf.find((d) => d.title === title)!.id;
  [flyer, almanac] = [idOf('Open Dome Night'), idOf('The Marrowby Almanac')];
}, 240_000);
afterAll(() => server.stop());

const letters = async (): Promise<Letter[]> => z.array(Letter).parse((await server.get('/api/outbox')).json());
const notices = async (): Promise<Notice[]> => z.array(Notice).parse((await server.get('/api/notices')).json());
/** The path of a link in a mail, without its end. */
const pathOf = (letter: Letter): string => new URL(letter.link!).pathname.replace(/\/$/, '');
const person = { kind: 'person', name: 'Ilse Brandt', address: 'ilse@wortwerk.example' };
const ask = (document: string, body: object) => server.post(`/api/folios/${document}/jobs`, { language: 'de', for: person, ...body });
const asGuest = (method: string, path: string, body?: unknown, key = link) => {
  const port = server.port + 2;
  const own = { host: `127.0.0.1:${port}`, ...(method !== 'GET' && { origin: `http://127.0.0.1:${port}` }) };
  return server.ask(method, `${key}/api${path}`, body, own, port);
};
const mine = () => asGuest('GET', '/job').then((a) => GuestJob.parse(a.json()));
const edits = (args: object, kind = 'edition.units') => editRequest(NOW, 'anna', [{ kind, args }]);
const unit = (target: string, more: object = {}) => ({
  segments: [{ source: fromReadable('x'), target: fromReadable(target), state: 'translated', ...more }],
  codes: {},
});

describe('a translator is asked', () => {
  test('by a mail with a link; what goes out is counted then', async () => {
    const answer = await ask(flyer, { due: '2999-01-12', message: 'Formal, please.' });
    job = JobOnList.parse(answer.json());
    expect(job).toMatchObject({ state: 'invited', language: 'de', analysis: { total: { segments: 20 } }, progress: { all: 20, done: 11 } });
    const [letter] = await letters();
    expect(letter).toMatchObject({ to: 'ilse@wortwerk.example', subject: '“Open Dome Night”, from English into German' });
    expect(letter!.text).toContain('It is needed by 12 January 2999.');
    expect(letter!.text).toContain('Formal, please.');
    link = pathOf(letter!);
  });
  test('the mail is one as RFC 5322 has them', async () => {
    const [letter] = await letters();
    const raw = (await server.get(`/api/outbox/${letter!.id}`)).body.toString();
    expect(raw).toMatch(/^From: Studio desk <desk@marrowby\.example>$/m);
    expect(raw).toMatch(/^To: Ilse Brandt <ilse@wortwerk\.example>$/m);
    expect(raw).toMatch(/^Message-ID: <[^>]+>$/m);
    expect(raw).toMatch(/^Date: \w{3}, \d{1,2} \w{3} \d{4} [\d:]{8} \+0000$/m);
  });
  test.each([
    ['no address', { for: { ...person, address: 'ilse' } }, /address of mail/],
    ['no name', { for: { ...person, name: ' ' } }, /name/],
    ['a day that is over', { due: '2020-01-01' }, /is over/],
    ['a language without an edition', { language: 'fr' }, /no edition/],
    ['pages that are none', { chosen: { pages: 'all of them' } }, /like 2-5/],
    ['a style that is none', { chosen: { styles: 'No such style' } }, /no paragraph style/],
  ])('%s is told in words, and no mail leaves', async (_, body, says) => {
    const before = (await letters()).length;
    const answer = await ask(flyer, body);
    expect([answer.status, answer.json<{ message: string }>().message]).toEqual([expect.any(Number), expect.stringMatching(says)]);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(await letters()).toHaveLength(before);
  });
});

describe('what a link opens', () => {
  test('before it is taken on: what the job is, and not the document', async () => {
    expect(await mine()).toMatchObject({ state: 'invited', title: 'Open Dome Night', name: 'Ilse Brandt', words: 161, pages: [1] });
    expect((await asGuest('GET', `/folios/${flyer}`)).status).toBe(422);
    expect((await asGuest('POST', `/folios/${flyer}/parts`, { paths: ['stories/list-text'] })).status).toBe(422);
  });
  test('it is taken on, and the designer is told', async () => {
    const answer = await asGuest('POST', '/job', { says: 'accept' });
    expect(GuestJob.parse(answer.json()).state).toBe('accepted');
    expect((await notices())[0]).toMatchObject({
      kind: 'accepted',
      says: 'Ilse Brandt has taken the job on.',
      seen: false,
      language: 'de',
    });
    expect((await asGuest('POST', '/job', { says: 'accept' })).status).toBe(422);
  });
  test('the document in two languages, without outputs', async () => {
    const opened = OpenedDocument.parse((await asGuest('GET', `/folios/${flyer}`)).json());
    expect([Object.keys(opened.editions), opened.recipes]).toEqual([['de'], {}]);
  });
  test('nothing else answers to it: every address of the application, asked by a guest', async () => {
    const described = (await server.get('/api/openapi.json')).json<{ paths: Record<string, Record<string, unknown>> }>().paths;
    const filled = (path: string): string =>
      path
        .replace('/api', '')
        .replace('{id}', almanac)
        .replace('{language}', 'de')
        .replace('{source}', 'en')
        .replace('{target}', 'de')
        .replace(/\{\w+\}/g, 'x');
    const asked: [string, number, string][] = [];
    for (const [path, methods] of Object.entries(described))
      for (const method of Object.keys(methods)) {
        const body = method === 'post' ? { paths: [], edits: [], units: {}, unit: 'x', source: [] } : undefined;
        const answer = await asGuest(method.toUpperCase(), filled(path), body);
        asked.push([`${method} ${path}`, answer.status, answer.body.toString()]);
      }
    expect(asked.length).toBeGreaterThan(60);
    // Terms that stand in texts of the job are the one thing that is asked for without naming a document.
    const answered = asked.filter(([, status]) => status < 400).map(([what]) => what);
    expect(answered).toEqual(['get /api/terms/{source}/{target}']);
    for (const [what, , body] of asked) expect([what, body]).toEqual([what, expect.not.stringMatching(/Marrowby Almanac|Handbook/)]);
  });
  test('the application does not know it as a key: a guest’s address opens nothing there', async () => {
    const answer = await server.get(`${link}/api/job`);
    expect(answer.headers['content-type']).toContain('text/html');
    expect((await server.get(`/api/folios/${almanac}`)).status).toBe(200);
    const guestHost = { host: `127.0.0.1:${server.port + 2}` };
    for (const path of ['/', '/api/folios', `/api/folios/${flyer}`, '/api/outbox', '/index.html', '/t/'])
      expect([path, (await server.ask('GET', path, undefined, guestHost, server.port + 2)).status]).toEqual([path, 404]);
  });
  test.each([
    ['one letter changed', (key: string) => key.replace(/[^.](?=[^.]{20}$)/, (c) => (c === 'A' ? 'B' : 'A'))],
    ['its signature taken off (alg: none)', () => `/t/${b64({ alg: 'none' })}.${b64({ sub: 'x', jti: 'y', aud: 'translation-desk' })}.`],
    ['words', () => '/t/please'],
  ])('a key with %s opens nothing', async (_, alter) => {
    const answer = await asGuest('GET', '/job', undefined, alter(link));
    expect([answer.status, answer.json<{ message: string }>().message]).toEqual([403, 'This link does not open anything.']);
  });
  test('other sites cannot ask in a guest’s name', async () => {
    const port = server.port + 2;
    const host = `127.0.0.1:${port}`;
    const foreign = await server.ask('POST', `${link}/api/job`, { says: 'done' }, { host, origin: 'http://evil.example' }, port);
    expect(foreign.status).toBe(403);
    expect((await server.ask('GET', `${link}/api/job`, undefined, { host: 'evil.example' }, port)).status).toBe(403);
  });
});

describe('at work', () => {
  let id = '';
  test('texts of the job are translated, signed by name, and are in the designer’s memory', async () => {
    const { units } = await mine();
    id = units.find((u) => u.startsWith('alt:'))!;
    const answer = await asGuest(
      'POST',
      `/folios/${flyer}/edits`,
      edits({ language: 'de', units: { [id]: unit('Die Kuppel am Abend.', { by: 'anna' }) } }),
    );
    expect(answer.status).toBe(200);
    const { editions } = OpenedDocument.parse((await server.get(`/api/folios/${flyer}`)).json());
    expect(editions['de']!.units[id]!.segments[0]).toMatchObject({ by: 'Ilse Brandt', target: fromReadable('Die Kuppel am Abend.') });
    await asGuest('POST', `/folios/${flyer}/languages/de/memory`, { units: { [id]: unit('Die Kuppel am Abend.'), elsewhere: unit('no') } });
    expect((await server.get('/api/memory/en/de')).body.toString()).toContain('Die Kuppel am Abend.');
  });
  test.each([
    ['the document itself', edits({ title: 'Mine' }, 'document.metadata'), /Only texts of the job/],
    ['another language', edits({ language: 'ja', units: {} }), /Only texts of the job/],
    ['a text beyond the job', edits({ language: 'de', units: { elsewhere: unit('x') } }), /not part of the job/],
    ['a state that is not theirs', () => edits({ language: 'de', units: { [id]: unit('x', { state: 'final' }) } }), /not a translator’s/],
    ['a lock', edits({ language: 'de', lock: { did: 'locked', by: 'x', at: 'y' } }, 'edition.lock'), /Only texts of the job/],
  ])('%s cannot be changed', async (_, body, says) => {
    const answer = await asGuest('POST', `/folios/${flyer}/edits`, typeof body === 'function' ? body() : body);
    expect([answer.status, answer.json<{ message: string }>().message]).toEqual([422, expect.stringMatching(says)]);
  });
  test('undo takes back what they wrote, and nothing of the designer’s', async () => {
    const opened = OpenedDocument.parse((await asGuest('GET', `/folios/${flyer}?actor=anna`)).json());
    expect(opened.history.undo).toHaveLength(1);
    const title = editRequest(NOW, 'anna', [{ kind: 'document.metadata', args: { rights: 'Ours' } }]);
    await server.post(`/api/folios/${flyer}/edits`, title);
    const rows = [opened.history.undo[0]![0]! + 1];
    expect((await asGuest('POST', `/folios/${flyer}/undo`, { actor: 'anna', rows })).status).toBe(404);
    const own = await asGuest('POST', `/folios/${flyer}/undo`, { actor: 'anna', rows: opened.history.undo[0]! });
    expect(own.status).toBe(200);
    // What the designer changed meanwhile is heard as far as it belongs to the job: this does not.
    expect(JSON.stringify((await asGuest('GET', `/folios/${flyer}/edits?since=0`)).json())).not.toContain('Ours');
  });
  test('the memory answers for texts of the job alone', async () => {
    const { units } = await mine();
    const matches = (body: object) => asGuest('POST', `/folios/${flyer}/languages/de/matches`, body).then((a) => a.json<unknown[]>());
    const found = await Promise.all(units.map((u) => matches({ unit: u })));
    expect(found.flat().length).toBeGreaterThan(5);
    expect(await matches({ unit: 'dome-feature-1' })).toEqual([]);
  });
  test('a question reaches the designer, with the text it is about', async () => {
    await asGuest('POST', '/job', { says: 'question', text: 'Du or Sie?', unit: id });
    expect((await notices())[0]).toMatchObject({ kind: 'question', says: 'Ilse Brandt asks: Du or Sie?', unit: id });
    await server.post('/api/notices/seen', { ids: (await notices()).map((n) => n.id) });
    expect((await notices()).some((n) => !n.seen)).toBe(false);
  });
  test('what is heard while one works belongs to the job', async () => {
    const port = server.port + 2;
    const heard: ServerEvent[] = [];
    const stream = await server.listen(`${link}/api/events`, (e) => heard.push(e), port);
    const shelf = z.array(ShelfEntry).parse((await server.get('/api/folios')).json());
    const edit = (document: string, args: object) =>
      server.post(`/api/folios/${document}/edits`, editRequest(NOW, 'anna', [{ kind: 'document.metadata', args }]));
    for (const d of shelf) await edit(d.id, { rights: 'Secret' });
    await asGuest('POST', '/job', { says: 'question', text: 'Heard?' });
    for (let i = 0; i < 40 && !heard.some((e) => e.type === 'jobs'); i++) await new Promise((r) => setTimeout(r, 100));
    stream();
    expect(heard.every((e) => 'folio' in e && e.folio === flyer)).toBe(true);
    expect(JSON.stringify(heard)).not.toContain('Secret');
    expect(heard.map((e) => e.type)).toContain('jobs');
  });
  test('once delivered it can be seen and not changed, until the designer opens it again', async () => {
    expect(GuestJob.parse((await asGuest('POST', '/job', { says: 'done' })).json()).state).toBe('done');
    const write = () => asGuest('POST', `/folios/${flyer}/edits`, edits({ language: 'de', units: { [id]: unit('Die Kuppel.') } }));
    expect((await write()).json<{ message: string }>().message).toBe('This job is delivered.');
    expect((await asGuest('GET', `/folios/${flyer}`)).status).toBe(200);
    // Nor by themselves.
    expect((await asGuest('POST', '/job', { says: 'accept' })).status).toBe(422);
    await server.post(`/api/jobs/${job.id}/state`, { state: 'accepted' });
    expect((await write()).status).toBe(200);
  });
  test('a new mail makes the link before it worthless; a job that is taken back opens nothing', async () => {
    const before = link;
    await server.post(`/api/jobs/${job.id}/again`, {});
    link = pathOf((await letters())[0]!);
    expect(link).not.toBe(before);
    expect((await asGuest('GET', '/job', undefined, before)).status).toBe(403);
    expect((await asGuest('GET', '/job')).status).toBe(200);
    // What listens by the link hears no more either.
    const heard: ServerEvent[] = [];
    const stop = await server.listen(`${link}/api/events`, (e) => heard.push(e), server.port + 2);
    await server.post(`/api/jobs/${job.id}/state`, { state: 'withdrawn' });
    const change = editRequest(NOW, 'anna', [{ kind: 'document.metadata', args: { creators: ['Marrowby Observatory'] } }]);
    await server.post(`/api/folios/${flyer}/edits`, change);
    await new Promise((r) => setTimeout(r, 300));
    stop();
    expect(heard).toEqual([]);
    expect((await asGuest('GET', '/job')).json<{ message: string }>().message).toMatch(/taken back/);
  });
  test('who says no is not asked for a document; the reason is told', async () => {
    await ask(almanac, { chosen: { pages: '2-3' } });
    const key = pathOf((await letters())[0]!);
    const offered = GuestJob.parse((await asGuest('GET', '/job', undefined, key)).json());
    expect(offered.pages.length).toBeLessThan(16);
    await asGuest('POST', '/job', { says: 'decline', why: 'Away until March' }, key);
    expect((await notices())[0]).toMatchObject({ kind: 'declined', says: 'Ilse Brandt has said no: Away until March' });
    expect((await asGuest('GET', `/folios/${almanac}`, undefined, key)).status).toBe(422);
  });
});

describe('the simulated service', () => {
  const served = async (breaksCodes: boolean): Promise<JobOnList> => {
    const made = JobOnList.parse((await ask(flyer, { language: 'ja', for: { kind: 'service', seconds: 0, breaksCodes } })).json());
    for (let i = 0; i < 200; i++) {
      const jobs = z.array(JobOnList).parse((await server.get(`/api/folios/${flyer}/jobs`)).json());
      const now = jobs.find((j) => j.id === made.id)!;
      if (now.state === 'done') return now;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('nothing was delivered');
  };
  const back = async ({ id }: JobOnList): Promise<BackHome> => {
    const file = (await server.get(`/api/jobs/${id}/delivery`)).body;
    return BackHome.parse((await server.uploadTo(`/api/folios/${flyer}/languages/ja/return`, 'delivered.ja.xlf', file)).json());
  };
  test('delivers a file that comes back as any other, with what the memory has', async () => {
    const job = await served(false);
    expect(job.delivered).toBe('delivered.ja.xlf');
    const { segments } = await back(job);
    // The flyer's twenty, and its rights, which it has been given above.
    expect(segments).toHaveLength(21);
    expect(segments.flatMap((s) => s.findings).filter((f) => f.fault.startsWith('code'))).toEqual([]);
    expect((await notices())[0]).toMatchObject({ kind: 'delivered', language: 'ja' });
  });
  test('told to break codes, it brings some that are missing', async () => {
    const { segments } = await back(await served(true));
    expect(segments.flatMap((s) => s.findings).filter((f) => f.fault === 'codeMissing').length).toBeGreaterThan(0);
  });
  test('no mail of a job for it leaves, and its link would open nothing', async () => {
    expect((await letters()).every((l) => l.to === 'ilse@wortwerk.example')).toBe(true);
  });
});

describe('the memory and terms', () => {
  test('entries are found in both languages, said otherwise, and forgotten', async () => {
    type Found = { of: number; entries: { entry: string; target: unknown }[] };
    const find = async (words: string): Promise<Found> =>
      (await server.get(`/api/memory/en/de/entries?words=${encodeURIComponent(words)}`)).json();
    const [entry] = (await find('Kuppel am Abend')).entries;
    expect((await server.post(`/api/memory/en/de/entries/${entry!.entry}`, { target: fromReadable('Die Kuppel zur Nacht.') })).status).toBe(
      200,
    );
    expect((await find('Kuppel am Abend')).of).toBe(0);
    const [now] = (await find('kuppel zur nacht')).entries;
    expect((await server.ask('DELETE', `/api/memory/en/de/entries/${now!.entry}`)).status).toBe(200);
    expect((await find('kuppel zur nacht')).of).toBe(0);
    expect((await server.ask('DELETE', `/api/memory/en/de/entries/${now!.entry}`)).status).toBe(404);
  });
  test('terms come from a file, once each', async () => {
    const tbx = Buffer.from(
      '<tbx><text><body><conceptEntry><langSec xml:lang="en"><termSec><term>lamp</term></termSec></langSec><langSec xml:lang="de"><termSec><term>Lampe</term></termSec></langSec></conceptEntry></body></text></tbx>',
    );
    const send = () => server.uploadTo('/api/terms/en/de/file', 'terms.tbx', tbx);
    expect((await send()).json()).toEqual({ added: 1, others: 0 });
    expect((await send()).json()).toEqual({ added: 0, others: 0 });
    const wrong = await server.uploadTo('/api/terms/en/fr/file', 'terms.tbx', tbx);
    expect(wrong.json<{ message: string }>().message).toBe('The file has no terms from “en” into “fr”.');
  });
  test('open texts that the memory has word by word are brought, and none is taken by that', async () => {
    await server.post(`/api/folios/${flyer}/languages/ja/memory`, {
      units: {
        x: { segments: [{ source: fromReadable('Sturdy shoes'), target: fromReadable('丈夫な靴'), state: 'translated' }], codes: {} },
      },
    });
    const { units } = (await server.post(`/api/folios/${flyer}/languages/ja/known`, {})).json<{ units: Record<string, unknown> }>();
    expect(JSON.stringify(units)).toContain('丈夫な靴');
    const { editions } = OpenedDocument.parse((await server.get(`/api/folios/${flyer}`)).json());
    expect(JSON.stringify(editions['ja'])).not.toContain('丈夫な靴');
  });
});

const b64 = (value: object): string => Buffer.from(JSON.stringify(value)).toString('base64url');
