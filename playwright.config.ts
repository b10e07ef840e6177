import { CHROMIUM } from './e2e/chromium.ts';
import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: 'e2e',
  timeout: 90_000,
  expect: { timeout: 15_000 },
  workers: 1,
  retries: 0,
  outputDir: 'test-results/browser',
  reporter: [['list'], ['json']],
  use: {
    baseURL: 'http://127.0.0.1:4780',
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
  },
  webServer: {
    command: 'rm -rf test-results/data && node --enable-source-maps dist/server.mjs',
    env: { PORT: '4780', FOLIO_DATA: 'test-results/data' },
    url: 'http://127.0.0.1:4780/api/ready',
    timeout: 90_000,
    reuseExistingServer: false,
  },
});
