import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readdir } from 'node:fs/promises';
import { request } from 'node:http';
import { join } from 'node:path';
import {
  EditAnswer,
  FontEntry,
  Ledger,
  OpenedDocument,
  OutputKind,
  OutputState,
  Run,
  ServerEvent,
  ShelfEntry,
} from '@elastic-folio/core/api';
import { Recipe, RoleSet } from '@elastic-folio/core';
import { z } from 'zod';
import { editRequest } from './support/editRequest.ts';
import { RunningServer } from './support/runningServer.ts';

let server: RunningServer;
let flyer: string;
beforeAll(async () => {
  server = await RunningServer.start();
  flyer = z
    .array(ShelfEntry)
    .parse((await server.get('/api/folios')).json())
    .find((d) => d.title === 'Open Dome Night')!.id;
}, 240_000);
afterAll(() => server.stop());

const problem = (says: RegExp) => ({ code: expect.any(String), message: expect.stringMatching(says), advice: expect.any(String) });
const shelf = async (): Promise<ShelfEntry[]> => z.array(ShelfEntry).parse((await server.get('/api/folios')).json());
const edit = (edits: unknown[], base: number, actor = 'anna') => server.post(`/api/folios/${flyer}/edits`, editRequest(base, actor, edits));
const seqNow = async (): Promise<number> => OpenedDocument.parse((await server.get(`/api/folios/${flyer}?actor=x`)).json()).seq;
const typed = (text: string, paragraphId = 'list-text-1') => ({
  kind: 'text.replace',
  args: {
    story: 'list-text',
    from: { paragraphId, offset: 0 },
    to: { paragraphId, offset: 0 },
    content: [[{ type: 'span', text }]],
    newIds: [],
  },
});

describe('who may speak to the server', () => {
  test.each([
    ['another host name (DNS rebinding)', 'GET', { host: 'evil.example' }],
    ['an address that merely begins like ours', 'GET', { host: '127.0.0.1.evil.example' }],
    ['no origin on a change', 'POST', { origin: '' }],
    ['a foreign origin on a change', 'POST', { origin: 'http://evil.example' }],
    ['a result’s own origin on a change', 'POST', { origin: 'http://x.localhost:4611' }],
    ['the null origin of a sandboxed frame', 'POST', { origin: 'null' }],
  ])('%s is turned away', async (_, method, headers) => {
    const answer = await server.ask(method, '/api/folios', method === 'POST' ? {} : undefined, headers);
    expect(answer.status).toBe(403);
    expect(answer.json()).toEqual(problem(/answers at|own pages/));
  });

  test('pages come with a policy that lets nothing else in (CSP 3)', async () => {
    const { headers, status } = await server.get('/');
    expect(status).toBe(200);
    const policy = String(headers['content-security-policy']);
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("object-src 'none'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toContain("'unsafe-eval'");
    expect(headers['set-cookie']).toBeUndefined();
    expect(headers['x-powered-by']).toBeUndefined();
  });

  test('an address below /api that is none is said so, in JSON', async () => {
    const answer = await server.get('/api/nothing/here');
    expect([answer.status, answer.json()]).toEqual([404, problem(/nothing at this address/)]);
  });
});

describe('documents over HTTP', () => {
  test('the shelf has the samples with their points and covers', async () => {
    const rows = await shelf();
    expect(rows.map((r) => r.title).sort()).toEqual([
      'Five Worlds',
      'Handbook for Volunteer Observers',
      'Open Dome Night',
      'The Marrowby Almanac',
    ]);
    const { cover, openPoints, pages } = rows.find((r) => r.id === flyer)!;
    // Its first spread and its points are found together, after the shelf has been shown.
    expect([pages, openPoints === null || openPoints.length > 0]).toEqual([1, true]);
    const drawn = await server.get(cover);
    expect((await shelf()).find((r) => r.id === flyer)!.openPoints!.length).toBeGreaterThan(0);
    expect([drawn.status, drawn.headers['content-type']]).toEqual([200, expect.stringMatching(/^image\/svg\+xml/)]);
    expect(drawn.headers['content-security-policy']).toContain("default-src 'none'");
    expect(drawn.body.toString()).toMatch(/^<svg [^>]*>.*<use /s);
  });

  test('parts, pictures and fonts come singly; what is not there is said so', async () => {
    const paths = ['spreads/front.json', 'stories/none.json'];
    const parts = (await server.post(`/api/folios/${flyer}/parts`, { paths })).json<{ parts: object }>();
    expect((await server.post(`/api/folios/${flyer}/parts`, {})).status).toBe(422);
    expect(Object.keys(parts.parts)).toEqual(['spreads/front.json']);
    const picture = await server.get(`/api/folios/${flyer}/media/dusk?width=64`);
    expect([picture.status, picture.headers['content-type']]).toEqual([200, 'image/webp']);
    const fonts = z.array(FontEntry).parse((await server.get(`/api/folios/${flyer}/fonts`)).json());
    const font = await server.get(`/api/folios/${flyer}/fonts/${fonts[0]!.key}`);
    expect(font.body.subarray(0, 4).toString('hex')).toMatch(/^(00010000|4f54544f)$/);
    for (const path of ['media/none', 'fonts/none', 'media/dusk?width=1', 'media/dusk?width=99999', 'parts'])
      expect((await server.get(`/api/folios/${flyer}/${path}`)).status).toBeGreaterThanOrEqual(400);
    expect((await server.get('/api/folios/none')).status).toBe(404);
  });

  test('edits merge, also within one text; what others changed as well is refused with what changed; nonsense changes nothing', async () => {
    const base = await seqNow();
    const one = await edit([typed('One ')], base);
    expect(EditAnswer.parse(one.json()).rows).toHaveLength(1);
    const other = EditAnswer.parse((await edit([typed('Two ', 'list-text-2')], base, 'ben')).json());
    expect(other.missed.map((r) => r.seq)).toEqual([base + 1]);
    const merged = EditAnswer.parse((await edit([typed('Three ')], base, 'ben')).json());
    expect([merged.rows.length, merged.missed.length, merged.refused]).toEqual([1, 2, []]);
    const title = (t: string) => ({ kind: 'document.metadata', args: { title: t } });
    const now = await seqNow();
    await edit([title('One')], now);
    const refused = EditAnswer.parse((await edit([title('Two')], now, 'ben')).json());
    expect([refused.rows, refused.refused.map((r) => r.by)]).toEqual([[], [[now + 1]]]);
    const before = await seqNow();
    for (const nonsense of [
      [{ kind: 'item.fly', args: {} }],
      [{ kind: 'item.alt', args: { spread: 'front', item: 'none', alt: 'x' } }],
      [typed('x'), { kind: 'paragraph.style', args: { story: 'list-text', paragraph: 'list-text-1', style: 'none' } }],
      [],
    ])
      expect((await edit(nonsense, before)).status).toBe(422);
    expect(await seqNow()).toBe(before);
    const since = EditAnswer.parse((await server.get(`/api/folios/${flyer}/edits?since=${base}`)).json());
    expect(since.rows.map((r) => r.actor)).toEqual(['anna', 'ben', 'ben', 'anna']);
    expect((await server.post(`/api/folios/${flyer}/undo`, { actor: 'ben', rows: [base + 1] })).status).toBe(404);
    // Ben has typed into the same text since; the title nobody has touched.
    expect((await server.post(`/api/folios/${flyer}/undo`, { actor: 'anna', rows: [base + 1] })).status).toBe(409);
    expect((await server.post(`/api/folios/${flyer}/undo`, { actor: 'anna', rows: [now + 1] })).status).toBe(200);
    const { title: titleNow } = (await shelf()).find((r) => r.id === flyer)!;
    expect(titleNow).toBe('Open Dome Night');
  });

  test('JSON that is none, and a body without end, are answered with a sentence', async () => {
    const broken = await server.ask('POST', `/api/folios/${flyer}/edits`, Buffer.from('{"base":'));
    expect(broken.status).toBeGreaterThanOrEqual(400);
    expect(broken.status).toBeLessThan(500);
    const huge = await server.ask('POST', `/api/folios/${flyer}/edits`, Buffer.alloc(21 * 2 ** 20, 0x20));
    expect(huge.status).toBe(413);
    for (const answer of [broken, huge]) expect(answer.json()).toEqual(problem(/./));
  });

  test('open windows hear of edits as they happen (server-sent events)', async () => {
    const heard = new Promise<unknown>((resolve) => {
      const req = request({ host: '127.0.0.1', port: server.port, path: '/api/events' }, (res) => {
        expect(res.headers['content-type']).toBe('text/event-stream');
        let text = '';
        res.on('data', (d: Buffer) => {
          text += d.toString();
          // Covers of the shelf may be told of first: they are made when the machine has time.
          const data = [...text.matchAll(/^data: (.*)$/gm)].map((m) => m[1]!).find((e) => !e.includes('"type":"shelf"'));
          if (data) {
            resolve(JSON.parse(data));
            req.destroy();
          }
        });
      });
      req.on('error', () => undefined);
      req.end();
    });
    await new Promise((r) => setTimeout(r, 200));
    await edit([typed('Heard ')], await seqNow());
    const event = ServerEvent.parse(await heard);
    expect(event).toMatchObject({ type: 'edits', folio: flyer });
  });

  test('a package goes out and comes in again; broken ones leave nothing behind', async () => {
    const out = await server.get(`/api/folios/${flyer}/package`);
    expect(out.headers['content-disposition']).toMatch(/attachment; filename="?open-dome-night\.efolio"?/);
    const again = await server.upload('again.efolio', out.body);
    const { id, title } = again.json<{ id: string; title: string }>();
    expect([again.status, title]).toEqual([200, 'Open Dome Night']);
    const bad: [string, Buffer, RegExp][] = [
      ['note.txt', Buffer.from('hello'), /of no kind that can be brought in/],
      ['cut.efolio', out.body.subarray(0, out.body.length >> 1), /damaged|not a package|broken|cut/i],
      ['empty.efolio', Buffer.alloc(0), /./],
    ];
    for (const [name, bytes, says] of bad) {
      const refused = await server.upload(name, bytes);
      expect([name, refused.status]).toEqual([name, 422]);
      expect(refused.json()).toEqual(problem(says));
    }
    expect((await server.post('/api/folios', {})).status).toBeGreaterThanOrEqual(400);
    // The line breaks in the middle of a file.
    await server.upload('half.efolio', out.body, 20_000).catch(() => undefined);
    await expect(pollUntilEmpty(join(server.data, 'incoming'))).resolves.toEqual([]);
    expect(await shelf()).toHaveLength(5);
    expect((await server.ask('DELETE', `/api/folios/${id}`)).status).toBe(200);
    expect(await shelf()).toHaveLength(4);
  });
});

async function pollUntilEmpty(folder: string): Promise<string[]> {
  for (let i = 0; i < 50 && (await readdir(folder).catch(() => [])).length; i++) await new Promise((r) => setTimeout(r, 100));
  return readdir(folder).catch(() => []);
}

describe('outputs over HTTP', () => {
  const recipe = (id: string, output: string, settings = {}) => ({
    kind: 'recipe.set',
    args: { id, output, version: 1, name: id, settings },
  });
  const finished = async (id: string): Promise<Run> => {
    for (let i = 0; i < 300; i++) {
      const run = z
        .array(Run)
        .parse((await server.get('/api/runs')).json())
        .find((r) => r.id === id)!;
      if (!['waiting', 'running'].includes(run.state)) return run;
      await new Promise((r) => setTimeout(r, 100));
    }
    throw new Error('the run did not end');
  };
  const stateOf = async (id: string): Promise<string> =>
    z
      .array(OutputState)
      .parse((await server.get(`/api/folios/${flyer}/outputs`)).json())
      .find((o) => o.recipe === id)!.state;

  test('each kind says its settings as a schema with words for people', async () => {
    const kinds = z.array(OutputKind).parse((await server.get('/api/outputs')).json());
    expect(kinds.map((k) => k.id)).toEqual(expect.arrayContaining(['html', 'pdf', 'epub', 'article']));
    for (const kind of kinds)
      for (const [name, setting] of Object.entries(
        (kind.settings as { properties: Record<string, { title?: string; help?: string }> }).properties,
      ))
        expect([name, !!setting.title && !!setting.help]).toEqual([name, true]);
  });

  test('a run gives files, a ledger and a site of its own; a changed document makes it stale', async () => {
    await edit([recipe('web', 'html')], await seqNow());
    expect(await stateOf('web')).toBe('never');
    const { id } = Run.parse((await server.post(`/api/folios/${flyer}/runs`, { recipe: 'web' })).json());
    const run = await finished(id);
    expect([run.state, run.valid, run.pagesDone]).toEqual(['done', true, 1]);
    expect(await stateOf('web')).toBe('fresh');
    const ledger = Ledger.parse((await server.get(`/api/runs/${id}/ledger`)).json());
    expect(ledger.entries.length).toBe(['kept', 'adapted', 'dropped', 'excluded'].reduce((n, k) => n + ledger.counts[k]!, 0));
    expect((await server.get(`/api/runs/${id}/result.zip`)).body.subarray(0, 2).toString()).toBe('PK');
    const page = await server.get(`/api/runs/${id}/file/index.html`);
    expect([page.headers['content-type'], page.headers['content-security-policy']]).toEqual([
      'application/octet-stream',
      "default-src 'none'; sandbox",
    ]);
    for (const path of ['../ledger.json', '..%2f..%2fdatabase', 'ledger.json', 'none.html'])
      expect([path, (await server.get(`/api/runs/${id}/file/${path}`)).status]).toEqual([path, 404]);

    const site = (path: string, host = `${id}.localhost:${server.port + 1}`, method = 'GET') =>
      server.ask(method, path, undefined, { host }, server.port + 1);
    const shown = await site('/');
    expect([shown.status, shown.headers['set-cookie']]).toEqual([200, undefined]);
    expect(shown.headers['content-security-policy']).toContain(`frame-ancestors 'self' http://127.0.0.1:${server.port}`);
    for (const path of [
      '/ledger.json',
      '//ledger.json',
      '/%2fledger.json',
      '/./ledger.json',
      '/x/../ledger.json',
      '/%6cedger.json',
      '/LEDGER.json',
    ])
      expect((await site(path)).status).toBe(404);
    expect((await site('/')).headers['access-control-allow-origin']).toBeUndefined();
    expect((await site('/../../database/PG_VERSION')).status).toBe(404);
    expect((await site('/', `127.0.0.1:${server.port + 1}`)).status).toBe(404);
    expect((await site('/', undefined, 'POST')).status).toBe(404);

    await edit([typed('Stale ')], await seqNow());
    expect(await stateOf('web')).toBe('stale');
  });

  test('what an output will keep is told before it is made; of a recipe that is not there it is said so', async () => {
    await edit([recipe('deck', 'pptx', {})], await seqNow());
    const plan = Ledger.parse((await server.get(`/api/folios/${flyer}/recipes/deck/plan`)).json());
    expect(plan.output).toBe('pptx');
    expect(plan.entries.length).toBeGreaterThan(50);
    expect(new Set(plan.entries.map((e) => e.check))).toEqual(new Set(['planned']));
    const runs = z.array(Run).parse((await server.get('/api/runs')).json());
    expect(runs.filter((r) => r.recipe === 'deck')).toEqual([]);
    const none = await server.get(`/api/folios/${flyer}/recipes/nothing/plan`);
    expect([none.status, none.json<{ code: string }>().code]).toEqual([404, 'recipe.none']);
  });

  test('an e-book can be read on the site of its run, as a reader has set it, and nothing else of it can be had', async () => {
    await edit([recipe('book', 'epub', { cover: 'none', resolution: 48 })], await seqNow());
    const { id } = Run.parse((await server.post(`/api/folios/${flyer}/runs`, { recipe: 'book' })).json());
    expect(await finished(id)).toMatchObject({ state: 'done', valid: true });
    const site = (path: string) => server.ask('GET', path, undefined, { host: `${id}.localhost:${server.port + 1}` }, server.port + 1);
    const page = await site('/book/reading?size=150&night=1');
    expect([page.status, page.headers['content-type']]).toEqual([200, 'text/html; charset=utf-8']);
    expect(page.body.toString()).toMatch(/font-size: 150%[\s\S]*Dome Night/);
    expect(page.headers['content-security-policy']).toContain("script-src 'self'");
    // What is no size or typeface is passed over.
    expect((await site('/book/reading?size=0;}&typeface=<b>')).body.toString()).toContain('font-size: 100%');
    const sheet = /href="([^"]+style\.css)"/.exec(page.body.toString())![1]!;
    expect((await site(sheet)).headers['content-type']).toMatch(/^text\/css/);
    const first = await site('/book/at/1');
    expect([first.status, first.headers['location']]).toEqual([302, '/book/EPUB/text-001.xhtml']);
    for (const path of ['/book/at/999', '/book/none.css', '/book/../ledger.json', '/book/..%2Fledger.json', '/book/'])
      expect([path, (await site(path)).status]).toEqual([path, 404]);
    // A result that is no book has no inside.
    const other = z
      .array(Run)
      .parse((await server.get('/api/runs')).json())
      .find((r) => r.output === 'html' && r.state === 'done')!;
    const outside = await server.ask(
      'GET',
      '/book/reading',
      undefined,
      { host: `${other.id}.localhost:${server.port + 1}` },
      server.port + 1,
    );
    expect(outside.status).toBe(404);
  });

  test('sets of roles are kept, replaced by one of the same name, and taken away', async () => {
    const role = { element: 'h1', startsSection: true, leaveOut: false };
    const keep = async (name: string, paragraph: object) =>
      (await server.post('/api/role-sets', { name, paragraph, character: {} })).json();
    await keep('House', { Title: role });
    const { id } = RoleSet.parse(await keep('house', { Title: role, Head: { ...role, element: 'h2' } }));
    const kept = async () => z.array(RoleSet).parse((await server.get('/api/role-sets')).json());
    expect((await kept()).map((s) => [s.id, s.name, Object.keys(s.paragraph).sort()])).toEqual([[id, 'house', ['Head', 'Title']]]);
    expect((await server.post('/api/role-sets', { name: ' ', paragraph: {}, character: {} })).status).toBe(422);
    expect((await server.post('/api/role-sets', { name: 'x', paragraph: { a: { element: 'marquee' } }, character: {} })).status).toBe(422);
    expect((await server.ask('DELETE', `/api/role-sets/${id}`)).status).toBe(200);
    expect((await server.ask('DELETE', `/api/role-sets/${id}`)).status).toBe(404);
    expect(await kept()).toEqual([]);
  });

  test('recipes are kept for all documents: replaced by one of the same name, called otherwise, taken away', async () => {
    const keep = async (name: string, settings: object, output = 'html') =>
      server.post('/api/recipes', { output, version: 1, name, settings });
    await keep('House', { form: 'slides' });
    const { id } = Recipe.parse((await keep('house', { form: 'spreads', gap: 0 })).json());
    const kept = async () => z.array(Recipe).parse((await server.get('/api/recipes')).json());
    // Kept with all settings of today: what was not said has its default.
    expect((await kept()).map((r) => [r.id, r.name, r.settings['form'], r.settings['gap'], r.settings['fit']])).toEqual([
      [id, 'house', 'spreads', 0, 'size'],
    ]);
    expect((await keep('House', {}, 'pdf')).status).toBe(200);
    expect(await kept()).toHaveLength(2);
    expect((await keep('x', { form: 'stone' })).json()).toMatchObject({
      code: 'recipe.settings',
      message: expect.stringContaining('form'),
    });
    expect((await keep('x', {}, 'stone')).json()).toMatchObject({ code: 'recipe.output' });
    expect((await server.post(`/api/recipes/${id}/name`, { name: 'Almanac house' })).status).toBe(200);
    expect((await kept())[0]!.name).toBe('Almanac house');
    expect((await server.ask('DELETE', `/api/recipes/${id}`)).status).toBe(200);
    expect((await server.ask('DELETE', `/api/recipes/${id}`)).status).toBe(404);
    expect((await server.post(`/api/recipes/${id}/name`, { name: 'y' })).status).toBe(404);
  });

  test('a recipe’s file is read with what it lacks; what is none is refused by its name', async () => {
    const read = async (text: string) => server.post('/api/recipes/read', { called: 'house.json', text });
    const fresh = (await read('{"output":"pdf","version":1,"name":"Proofs","settings":{"cards":"pages"}}')).json<Record<string, unknown>>();
    expect(fresh).toMatchObject({ output: 'pdf', name: 'Proofs', settings: { cards: 'pages', bookmarks: true, resolution: 220 } });
    for (const [text, code] of [
      ['no JSON', 'recipe.form'],
      ['[]', 'recipe.form'],
      ['{"output":"stone","version":1,"name":"x","settings":{}}', 'recipe.output'],
      ['{"output":"pdf","version":9,"name":"x","settings":{}}', 'recipe.newer'],
      ['{"output":"pdf","version":1,"name":"x","settings":{"quality":"fine"}}', 'recipe.settings'],
    ] as const)
      expect((await read(text)).json()).toMatchObject({ code });
  });

  test('settings that cannot be used, a recipe that is gone and an unknown output are refused or fail with a sentence', async () => {
    await edit([recipe('wrong', 'pdf', { pages: '9' }), recipe('other', 'stone')], await seqNow());
    const { id } = Run.parse((await server.post(`/api/folios/${flyer}/runs`, { recipe: 'wrong' })).json());
    expect(await finished(id)).toMatchObject({
      state: 'failed',
      message: expect.stringMatching(/pages 1 to 1/),
      advice: expect.any(String),
    });
    expect((await server.get(`/api/runs/${id}/ledger`)).status).toBe(404);
    expect((await server.post(`/api/folios/${flyer}/runs`, { recipe: 'gone' })).status).toBe(404);
    expect((await server.post(`/api/folios/${flyer}/runs`, { recipe: 'other' })).status).toBe(404);
    expect((await server.post('/api/runs/none/cancel')).status).toBeLessThan(500);
  });

  test('the OpenAPI document names every route with its answers', async () => {
    const doc = (await server.get('/api/openapi.json')).json<{ paths: Record<string, Record<string, { responses: object }>> }>();
    expect(doc.paths['/api/folios/{id}/edits']).toHaveProperty('post');
    for (const methods of Object.values(doc.paths)) for (const m of Object.values(methods)) expect(m.responses).toHaveProperty('422');
  });
});
