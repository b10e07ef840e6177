import { rmSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import type { Page, Request } from '@playwright/test';
import { clientOf, gone, startServer } from './ownServer.ts';

const PORT = 4794;
const DATA = 'test-results/transfer-data';

interface Moved {
  path: string;
  bytes: number;
}

/** What a page asks the server for and does not have yet, its workers' requests included; bytes as they come over the line. */
async function moved(page: Page, go: () => Promise<unknown>): Promise<Moved[]> {
  const finished: Promise<Moved>[] = [];
  const note = (request: Request): void => {
    if (!request.url().startsWith('http')) return;
    finished.push(
      (async () => {
        const path = new URL(request.url()).pathname;
        const answer = await request.response();
        const sizes = await request.sizes();
        // What comes from the cache of the browser moves nothing.
        const isKept = answer === null || (await answer.serverAddr()) === null || sizes.responseHeadersSize === 0;
        return { path, bytes: isKept ? 0 : sizes.responseBodySize + sizes.responseHeadersSize };
      })(),
    );
  };
  page.on('requestfinished', note);
  await go();
  await page.waitForLoadState('load');
  // Pictures and faces follow what is set; nothing new for a while is the end.
  for (let seen = -1; seen !== finished.length;) {
    seen = finished.length;
    await page.waitForTimeout(2500);
  }
  page.off('requestfinished', note);
  return Promise.all(finished);
}
const sum = (list: Moved[]): number => list.reduce((n, m) => n + m.bytes, 0);

test('the shelf and a document of 16 pages move little the first time, and nothing but data the second', async ({ page, context }) => {
  test.setTimeout(180_000);
  // A server of its own: with the samples alone on its shelf, whatever else was brought in elsewhere.
  rmSync(DATA, { recursive: true, force: true });
  const server = await startServer(PORT, DATA);
  try {
    const { get } = clientOf(PORT);
    const documents = () => get<{ id: string; title: string; openPoints: string[] | null }[]>('/api/folios');
    await expect.poll(async () => (await documents()).every((d) => d.openPoints), { timeout: 60_000 }).toBe(true);
    const { id } = (await documents()).find((d) => d.title.includes('Almanac'))!;
    const address = `http://127.0.0.1:${PORT}`;
    const shelf = await moved(page, () => page.goto(address));
    expect(shelf.some((m) => m.path.endsWith('/cover.svg'))).toBe(true);
    const open = async (by: Page): Promise<Moved[]> => {
      const list = await moved(by, async () => {
        await by.goto(`${address}/d/${id}/structure`);
        await expect(by.locator('svg text, svg path').first()).toBeAttached();
      });
      // Everything that the page needs has come.
      expect(list.some((m) => m.path.includes('/fonts/'))).toBe(true);
      return list;
    };
    const first = await open(page);
    const again = await open(await context.newPage());
    console.log(`moved: shelf ${sum(shelf)}, document ${sum(first)}, again ${sum(again)} bytes`);
    expect(sum(shelf)).toBeGreaterThan(100_000);
    expect(sum(shelf)).toBeLessThan(400_000);
    expect(sum(first)).toBeGreaterThan(500_000);
    expect(sum(first)).toBeLessThan(1_500_000);
    expect(again.filter((m) => m.bytes > 0 && /\/(assets|fonts|media)\//.test(m.path))).toEqual([]);
    expect(sum(again)).toBeLessThan(150_000);
  } finally {
    server.kill('SIGTERM');
    await gone(server);
  }
});
