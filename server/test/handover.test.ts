import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { request } from 'node:http';
import { OutputState, PublishedSite, ShelfEntry, Weights } from '@elastic-folio/core/api';
import type { Measures, PhoneAddress } from '@elastic-folio/core/api';
import { z } from 'zod';
import { editRequest } from './support/editRequest.ts';
import { RunningServer } from './support/runningServer.ts';

let server: RunningServer;
let flyer: string;
let results: number;
beforeAll(async () => {
  server = await RunningServer.start();
  results = server.port + 1;
  const shelf = z.array(ShelfEntry).parse((await server.get('/api/folios')).json());
  flyer = shelf.find((d) => d.title === 'Open Dome Night')!.id;
  await recipe({ offline: 'all', bar: ['share'] });
  await make();
}, 240_000);
afterAll(() => server.stop());

let seq = 0;
async function recipe(settings: object): Promise<void> {
  const edits = [{ kind: 'recipe.set', args: { id: 'web', output: 'html', version: 1, name: 'Web edition', settings } }];
  expect((await server.post(`/api/folios/${flyer}/edits`, editRequest(seq, 'a', edits))).status).toBe(200);
  seq++;
}
async function make(): Promise<string> {
  const { id } = (await server.post(`/api/folios/${flyer}/runs`, { recipe: 'web' })).json<{ id: string }>();
  for (;;) {
    const [state] = z.array(OutputState).parse((await server.get(`/api/folios/${flyer}/outputs`)).json());
    if (state?.lastDone?.id === id) return id;
    await new Promise((r) => setTimeout(r, 150));
  }
}
const publish = async (): Promise<PublishedSite> =>
  PublishedSite.parse((await server.post(`/api/folios/${flyer}/published`, { recipe: 'web' })).json());
const visit = (name: string, path = '/') => server.ask('GET', path, undefined, { host: `${name}.pages.localhost:${results}` }, results);
const show = (site: string, version: number | null) => server.post(`/api/published/${site}/shown`, { version });

/** A request as another machine makes it. */
const outside = (address: string): Promise<number> =>
  new Promise((resolve) =>
    request(address, (res) => (res.resume(), resolve(res.statusCode!)))
      .on('error', () => resolve(0))
      .end(),
  );

describe('the trial host', () => {
  test('shows what was published under an address and an origin of its own; versions come, go back, and are taken down', async () => {
    const one = await publish();
    expect([one.name, one.shown, one.versions.length]).toEqual(['open-dome-night', 1, 1]);
    const page = await visit(one.name);
    expect([page.status, page.body.toString().includes('<title>Open Dome Night')]).toEqual([200, true]);
    expect(page.headers['content-security-policy']).toContain("default-src 'self'");
    expect(page.headers['cache-control']).toBe('no-cache');
    expect((await visit(one.name, '/ledger.json')).status).toBe(404);
    expect((await visit(one.name, '/../../etc/passwd')).status).not.toBe(200);

    await recipe({ title: 'Another title' });
    await make();
    const two = await publish();
    expect([two.id, two.shown, two.versions.map((v) => v.number)]).toEqual([one.id, 2, [2, 1]]);
    expect((await visit(one.name)).body.toString()).toContain('<title>Another title');
    expect((await show(one.id, 1)).status).toBe(200);
    expect((await visit(one.name)).body.toString()).toContain('<title>Open Dome Night');
    await show(one.id, null);
    const gone = await visit(one.name);
    expect([gone.status, gone.body.toString()]).toEqual([410, 'This edition was taken down.']);
    expect((await show(one.id, 7)).json()).toMatchObject({ code: 'site.version' });
    await show(one.id, 2);
  });

  test('is asked for by its own name only, and takes nothing', async () => {
    expect((await visit('nobody')).status).toBe(404);
    expect((await server.ask('POST', '/', {}, { host: `open-dome-night.pages.localhost:${results}` }, results)).status).toBe(404);
    expect((await server.ask('GET', '/', undefined, { host: `evil.example:${results}` }, results)).status).toBe(404);
    expect((await server.post('/api/folios/none/published', { recipe: 'web' })).status).toBe(404);
    expect((await server.post(`/api/folios/${flyer}/published`, { recipe: 'none' })).json()).toMatchObject({ code: 'recipe.none' });
  });

  test('lets a phone in by its code, for what is shown and nothing else, until it is closed or the version changes', async () => {
    const [site] = z.array(PublishedSite).parse((await server.get(`/api/folios/${flyer}/published`)).json());
    const where = async (): Promise<PhoneAddress | null> =>
      (await server.get(`/api/published/${site!.id}/phone`)).json<{ phone: PhoneAddress | null }>().phone;
    expect(await where()).toBeNull();
    expect(site!.versions.map((v) => v.secure)).toEqual([[], ['Reading without a connection', 'The share button']]);
    const opened = (await server.post(`/api/published/${site!.id}/phone`)).json<{ phone: PhoneAddress }>().phone;
    expect(opened.code).toMatch(/^[2-9a-z]{8}$/);
    expect(Date.parse(opened.until) - Date.now()).toBeGreaterThan(25 * 60_000);
    // A machine in no network has no address that phones find.
    const [address] = opened.addresses;
    if (address !== undefined) {
      expect(await outside(address)).toBe(200);
      expect(await outside(`${address}style.css`)).toBe(200);
      expect(await outside(address.replace(opened.code, 'aaaaaaaa'))).toBe(404);
      expect(await outside(`${address}../../../database`)).toBe(404);
      expect(await outside(new URL('/api/folios', address).href)).toBe(404);
    }
    expect(await where()).toEqual(opened);
    await show(site!.id, 1);
    expect(await where()).toBeNull();
    if (address !== undefined) expect(await outside(address)).toBe(0);
    // Somebody who guesses closes it.
    const again = (await server.post(`/api/published/${site!.id}/phone`)).json<{ phone: PhoneAddress }>().phone;
    if (again.addresses[0] !== undefined) {
      for (let n = 0; n < 40; n++) await outside(again.addresses[0].replace(again.code, `aaaaaa${10 + n}`));
      expect(await where()).toBeNull();
      // Whoever opened it is told, until it is opened again.
      const guessed = async (): Promise<boolean> =>
        (await server.get(`/api/published/${site!.id}/phone`)).json<{ closedForWrongCodes: boolean }>().closedForWrongCodes;
      expect(await guessed()).toBe(true);
      await server.post(`/api/published/${site!.id}/phone`);
      expect(await guessed()).toBe(false);
    }
  });
});

describe('the trial collector', () => {
  let shown = '';
  beforeAll(async () => {
    await make();
    shown = `http://${(await publish()).name}.pages.localhost:${results}`;
  }, 120_000);
  const send = (body: string, { host = `127.0.0.1:${results}`, origin = shown } = {}) =>
    server.ask('POST', '/collect', Buffer.from(body), { host, origin, 'content-type': 'text/plain' }, results);
  const event = (kind: string, page: number, what?: string) => ({ kind, at: 10, page, ...(what && { what }) });
  const sent = (visit: string, events: object[]): string => JSON.stringify({ id: 'x', visit, title: 'T', language: 'en', events });

  test('counts what editions send, and forgets it when asked', async () => {
    expect((await send(sent('aaaaaa', [event('page', 1), event('page', 2), event('search', 2, 'moon')]))).status).toBe(204);
    expect((await send(sent('bbbbbb', [event('page', 2), event('link', 2, 'https://marrowby.example/')]))).status).toBe(204);
    const measures = (await server.get('/api/collected?id=x')).json<Measures>();
    expect(measures.visits).toBe(2);
    expect(measures.pages).toEqual([
      { page: 1, shown: 1, visits: 1 },
      { page: 2, shown: 2, visits: 2 },
    ]);
    expect(measures.kinds).toEqual([
      { kind: 'page', count: 3 },
      { kind: 'link', count: 1 },
      { kind: 'search', count: 1 },
    ]);
    expect(measures.most.map((m) => m.what)).toEqual(['https://marrowby.example/', 'moon']);
    expect(measures.days).toHaveLength(1);
    expect((await server.get('/api/collected?id=other')).json<Measures>().visits).toBe(0);
    await server.ask('DELETE', '/api/collected?id=x');
    expect((await server.get('/api/collected?id=x')).json<Measures>().latest).toEqual([]);
  });

  test.each([
    ['no JSON', '{'],
    ['nothing that happened', sent('aaaaaa', [])],
    ['a kind that is none', sent('aaaaaa', [event('name', 1)])],
    ['more than fits', sent('aaaaaa', [event('search', 1, 'x'.repeat(300_000))])],
  ])('refuses %s', async (_, body) => {
    expect((await send(body)).status).toBe(400);
  });

  test('answers under this machine’s own name only', async () => {
    expect((await send(sent('aaaaaa', [event('page', 1)]), { host: `evil.example:${results}` })).status).toBe(404);
  });

  test('takes nothing from anywhere but editions that are shown, and not more than readers send', async () => {
    const one = sent('aaaaaa', [event('page', 1)]);
    for (const origin of [
      'null',
      'https://evil.example',
      `http://127.0.0.1:${server.port}`,
      `http://none.pages.localhost:${results}`,
      `${shown}0`,
    ])
      expect((await send(one, { origin })).status).toBe(403);
    const statuses = new Set<number>();
    for (let i = 0; i < 140; i++) statuses.add((await send(one)).status);
    expect([...statuses].sort()).toEqual([204, 429]);
  });
});

test('a run says where its kilobytes go', async () => {
  const run = await make();
  const { pages, shared } = Weights.parse((await server.get(`/api/runs/${run}/weights`)).json());
  expect(pages.length).toBeGreaterThan(0);
  expect(shared.fonts).toBeGreaterThan(1000);
  expect((await server.get('/api/runs/none/weights')).json()).toMatchObject({ code: 'result.none' });
});
