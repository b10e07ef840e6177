import { defineConfig } from '@playwright/test';
import { CHROMIUM } from './e2e/chromium.ts';
import { ORIGIN, portOf } from './e2e/ownApplication.ts';

/** Files share what is on the shelf, in their order: one after another. */
const WORKERS = 1;

export default defineConfig({
  testDir: 'e2e',
  // Long files that have their turn on another day (scripts/shareOfToday.mjs).
  testIgnore: (process.env['FOLIO_TEST_ANOTHER'] ?? '')
    .split(',')
    .filter((file) => file.startsWith('e2e/'))
    .map((file) => `**/${file}`),
  timeout: 120_000,
  expect: { timeout: 30_000 },
  workers: WORKERS,
  retries: 0,
  outputDir: 'test-results/browser',
  reporter: [['list'], ['json']],
  use: {
    baseURL: ORIGIN,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
  webServer: Array.from({ length: WORKERS }, (_, worker) => ({
    command: `node scripts/preparedShelf.mjs test-results/data-${worker} && node --enable-source-maps dist/server.mjs`,
    env: { PORT: String(portOf(worker)), FOLIO_DATA: `test-results/data-${worker}` },
    url: `http://127.0.0.1:${portOf(worker)}/api/ready`,
    timeout: 180_000,
    reuseExistingServer: false,
  })),
});
