import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { CHROMIUM } from '../scripts/lib/browser.mjs';
import { ORIGIN } from './world.ts';

const root = join(import.meta.dirname, '..');
const report = process.env.TEST_REPORT;

export default defineConfig({
  testDir: import.meta.dirname,
  outputDir: join(root, 'test-results'),
  workers: 1,
  fullyParallel: false,
  timeout: 180_000,
  expect: { timeout: 30_000 },
  reporter: report ? [['list'], ['json', { outputFile: report }]] : [['list']],
  use: {
    baseURL: ORIGIN,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: CHROMIUM,
    // Costs a tenth of the time; wished for where somebody looks at what failed.
    trace: process.env.PLACARD_TRACE ? 'retain-on-failure' : 'off',
  },
  webServer: {
    command: 'node e2e/serve.mjs',
    cwd: root,
    url: `${ORIGIN}/api/openapi.json`,
    timeout: 240_000,
    stdout: 'pipe',
    gracefulShutdown: { signal: 'SIGTERM', timeout: 10_000 },
  },
});
