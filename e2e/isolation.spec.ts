import { expect, test } from '@playwright/test';
import type { Frame, Page } from '@playwright/test';
import { createHash } from 'node:crypto';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import type { PublishedSite } from '@elastic-folio/core/api';
import { sampleCopy } from '../campaign/sampleCopy.ts';
import { ORIGIN, PORT } from './ownApplication.ts';
import { addOutput, clientOf } from './ownServer.ts';

// What a designer, or whoever made an embedded page, has put into a result runs on the designer's machine beside the application and
// beside other results. Each way that a script has to reach another origin is tried out of a result, in a browser.
const RESULTS = PORT + 1;
const app = ORIGIN;
const copies: string[] = [];
const results = { almanac: '', night: '' };
const sites = { almanac: '', night: '' };

test.beforeAll(async () => {
  test.setTimeout(240_000);
  for (const [name, title, settings] of [
    ['almanac', 'The Marrowby Almanac', { pages: '7', end: '<script>globalThis.own = self.origin</script>' }],
    ['night', 'Open Dome Night', {}],
  ] as const) {
    ({ result: results[name], site: sites[name] } = await published(await sampleCopy(app, title), settings));
  }
});

/** Where the web edition of a document of these tests is shown as a result, and published. */
async function published(id: string, settings: object): Promise<{ result: string; site: string }> {
  const { get, post } = clientOf(PORT);
  copies.push(id);
  await post(`/api/folios/${id}/edits`, addOutput('isolated', 'html', settings));
  const run = await post<{ id: string }>(`/api/folios/${id}/runs`, { recipe: 'isolated' });
  const state = async (): Promise<string> => (await get<{ id: string; state: string }[]>('/api/runs')).find((r) => r.id === run.id)!.state;
  await expect.poll(state, { timeout: 90_000 }).toBe('done');
  const { name } = await post<PublishedSite>(`/api/folios/${id}/published`, { recipe: 'isolated' });
  return { result: `http://${run.id}.localhost:${RESULTS}`, site: `http://${name}.pages.localhost:${RESULTS}` };
}

/** The poster with a folder of files in a frame on its page: what the folder's own script has found there it writes into its page. */
async function posterWithFolder(): Promise<string> {
  const shelf = await clientOf(PORT).get<{ id: string; title: string }[]>('/api/folios');
  const poster = shelf.find((d) => d.title === 'Open Dome Night')!;
  const files = unzipSync(new Uint8Array(await (await fetch(`${app}/api/folios/${poster.id}/package`)).arrayBuffer()));
  const folder = zipSync({
    'start.html': strToU8(
      '<link rel="stylesheet" href="looks/own.css"><p id="says">nothing ran</p><img src="own.svg"><script src="own.js"></script>',
    ),
    'looks/own.css': strToU8('p { color: rgb(1, 2, 3) }'),
    'own.js': strToU8("document.getElementById('says').textContent = 'its own script ran'"),
    'own.svg': strToU8('<svg xmlns="http://www.w3.org/2000/svg" width="7" height="5"/>'),
    'secret.json': strToU8('{"kept": "in the folder"}'),
  });
  const read = <T>(path: string): T => JSON.parse(strFromU8(files[path]!)) as T;
  const head = read<{ media: Record<string, unknown>; layerOrder: string[] }>('folio.json');
  const [path] = Object.keys(files).filter((p) => p.startsWith('spreads/'));
  const spread = read<{ items: Record<string, unknown>; order: string[] }>(path!);
  head.media['folder'] = {
    id: 'folder',
    name: 'folder.zip',
    file: 'media/folder.zip',
    mediaType: 'application/zip',
    sha256: createHash('sha256').update(folder).digest('hex'),
    bytes: folder.length,
  };
  spread.items['folder'] = {
    kind: 'embed',
    id: 'folder',
    alt: 'A folder of files',
    layer: head.layerOrder[0],
    transform: [1, 0, 0, 1, 20, 20],
    size: { width: 100, height: 60 },
    source: { from: 'bundle', media: 'folder', entry: 'start.html' },
  };
  spread.order.push('folder');
  const body = new FormData();
  const changed = {
    ...files,
    'folio.json': strToU8(JSON.stringify(head)),
    [path!]: strToU8(JSON.stringify(spread)),
    'media/folder.zip': folder,
  };
  body.set('file', new Blob([zipSync(changed)]), 'with-folder.efolio');
  const answer = await fetch(`${app}/api/folios`, { method: 'POST', headers: { origin: app }, body });
  expect(answer.status, await answer.clone().text()).toBe(200);
  return ((await answer.json()) as { id: string }).id;
}

test.afterAll(async () => {
  for (const id of copies) await fetch(`${app}/api/folios/${id}`, { method: 'DELETE', headers: { origin: app } });
});

/** Tries to read an address as a script can: by asking for it, in a frame, in a window, as a program, as a style sheet. Gives what came of it. */
const reach = (from: Page | Frame, address: string): Promise<Record<string, string>> =>
  from.evaluate(async (url) => {
    const out: Record<string, string> = {};
    const within = <T>(work: Promise<T>): Promise<T | 'nothing'> =>
      Promise.race([work, new Promise<'nothing'>((done) => setTimeout(() => done('nothing'), 1500))]);
    out['asked'] = await within(fetch(url).then(async (a) => (await a.text()).slice(0, 80) || 'empty')).catch(() => 'refused');
    out['unseen'] = await within(fetch(url, { mode: 'no-cors' }).then((a) => a.type)).catch(() => 'refused');
    out['changed'] = await within(
      fetch(url, { method: 'POST', mode: 'no-cors', headers: { 'content-type': 'text/plain' }, body: '{}' }).then((a) => a.type),
    ).catch(() => 'refused');
    const element = <K extends 'iframe' | 'script' | 'link'>(kind: K, set: (e: HTMLElementTagNameMap[K]) => void): Promise<Event> => {
      const made = document.createElement(kind);
      set(made);
      const loaded = new Promise<Event>((done) => (made.onload = made.onerror = (e) => done(e as Event)));
      document.body.append(made);
      return loaded;
    };
    const frame = await within(element('iframe', (e) => (e.src = url)));
    const shown = frame === 'nothing' ? null : (frame.target as HTMLIFrameElement);
    try {
      out['framed'] = shown?.contentDocument?.body.textContent?.slice(0, 80) || 'nothing';
    } catch {
      out['framed'] = 'refused';
    }
    for (const [kind, attribute] of [
      ['script', 'src'],
      ['link', 'href'],
    ] as const) {
      const loaded = await within(
        element(kind, (e) => (kind === 'link' && e.setAttribute('rel', 'stylesheet'), e.setAttribute(attribute, url))),
      );
      out[kind] = loaded === 'nothing' ? 'nothing' : loaded.type;
    }
    const other = open(url, '_blank');
    await new Promise((done) => setTimeout(done, 800));
    try {
      out['window'] = other ? other.document.body?.textContent?.slice(0, 80) || 'nothing' : 'nothing';
    } catch {
      out['window'] = 'refused';
    }
    other?.close();
    return out;
  }, address);

const NOTHING = { asked: 'refused', unseen: 'refused', changed: 'refused', script: 'error', link: 'error' };
/** In a frame and in a window of another origin there may be something; none of it is to be seen. */
const UNSEEN = /^(nothing|refused)$/;

for (const [kind, from] of [
  ['a result', results],
  ['a published edition', sites],
] as const)
  test(`${kind} reaches neither the application, nor translators’ desks, nor other results and editions`, async ({ page }) => {
    test.setTimeout(180_000);
    await page.goto(`${from.almanac}/index.html`);
    expect(await page.evaluate(() => (globalThis as { own?: string }).own)).toBe(from.almanac);
    await page.evaluate(() => localStorage.setItem('mine', '1'));
    // What is its own it reads in each of these ways: those that reach nothing below do reach something.
    const own = await reach(page, `${from.almanac}/style.css`);
    expect(own).toMatchObject({ unseen: 'basic', link: 'load' });
    for (const way of ['asked', 'framed', 'window']) expect(own[way]).toMatch(/[{]/);
    for (const address of [
      `${app}/api/folios`,
      `http://localhost:${PORT}/api/folios`,
      `http://127.0.0.1:${PORT + 2}/`,
      `${results.night}/index.html`,
      `${sites.night}/index.html`,
      `http://127.0.0.1:${RESULTS}/index.html`,
    ]) {
      const got = await reach(page, address);
      expect({ address, ...got }).toMatchObject({ address, ...NOTHING });
      expect(got['framed']).toMatch(UNSEEN);
      expect(got['window']).toMatch(UNSEEN);
    }
    // Its own account is not part of it, and what it keeps in the browser is kept for it alone.
    expect((await reach(page, `${from.almanac}/ledger.json`))['asked']).not.toContain('{');
    await page.goto(`${from.night}/index.html`);
    expect(await page.evaluate(() => [localStorage.getItem('mine'), document.cookie])).toEqual([null, '']);
    // The application has taken nothing from it.
    expect((await clientOf(PORT).get<unknown[]>('/api/folios')).length).toBeGreaterThan(1);
  });

/** The frame on a page of an edition, from which nothing is reached: neither the pages around it, nor files beside it, nor anything else. */
async function expectShutIn(page: Page, site: string, anchor: string): Promise<Frame> {
  await page.goto(`${site}/index.html${anchor}`);
  await expect(page.locator('iframe[src^="embeds/"]')).toHaveCount(1);
  const frame = page.frames().find((f) => f.url().includes('/embeds/'))!;
  await frame.waitForLoadState();
  const around = await frame.evaluate(() => {
    const tried = (what: () => unknown): string => {
      try {
        return String(what());
      } catch (error) {
        return (error as Error).name;
      }
    };
    return {
      origin: self.origin,
      parent: tried(() => parent.document.title),
      kept: tried(() => localStorage.length),
      cookies: tried(() => document.cookie),
      element: tried(() => frameElement),
      away: tried(() => void (top!.location.href = 'about:blank')),
    };
  });
  expect(around).toEqual({
    origin: 'null',
    parent: 'SecurityError',
    kept: 'SecurityError',
    cookies: 'SecurityError',
    element: 'null',
    away: 'SecurityError',
  });
  expect(page.url()).toContain(site);
  for (const address of [
    `${site}/index.html`,
    `${site}/secret.json`,
    `${site}/embeds/secret.json`,
    `${app}/api/folios`,
    `${sites.night}/index.html`,
  ]) {
    const got = await reach(frame, address);
    expect({ address, ...got }).toMatchObject({ address, asked: 'refused' });
    if (!address.startsWith(site)) expect(got['changed']).toBe('refused');
    expect(got['framed']).toMatch(UNSEEN);
    expect(got['window']).toMatch(UNSEEN);
  }
  return frame;
}

test('another document’s edition in a result is shut in', async ({ page }) => {
  test.setTimeout(120_000);
  await expectShutIn(page, sites.almanac, '#page-7');
});

test('a folder of files in a result is shut in, and shows what is its own', async ({ page }) => {
  test.setTimeout(240_000);
  const { site } = await published(await posterWithFolder(), {});
  const frame = await expectShutIn(page, site, '');
  await expect(frame.locator('#says')).toHaveText('its own script ran');
  await expect(frame.locator('#says')).toHaveCSS('color', 'rgb(1, 2, 3)');
  expect(
    await frame
      .locator('img')
      .first()
      .evaluate((i: HTMLImageElement) => [i.naturalWidth, i.naturalHeight]),
  ).toEqual([7, 5]);
});
