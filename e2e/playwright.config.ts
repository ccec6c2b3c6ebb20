import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { CHROMIUM } from '../scripts/lib/browser.mjs';
import { controlOf, ORIGIN, portOf, UI_ORIGIN, UI_PORT, WORLDS } from './world.ts';

const root = join(import.meta.dirname, '..');
const report = process.env.TEST_REPORT;

export default defineConfig({
  testDir: import.meta.dirname,
  outputDir: join(root, 'test-results'),
  workers: WORLDS,
  fullyParallel: false,
  // Nothing is measured here: what comes late on a machine that others use too has come all the same.
  timeout: 400_000,
  expect: { timeout: 60_000 },
  reporter: report ? [['list'], ['json', { outputFile: report }]] : [['list']],
  use: {
    baseURL: ORIGIN,
    // Less than the test has, so that what was waited for in vain is named, and not only that time ran out.
    actionTimeout: 120_000,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    permissions: ['clipboard-read', 'clipboard-write'],
    launchOptions: CHROMIUM,
    // Costs a tenth of the time; wished for where somebody looks at what failed.
    trace: process.env.PLACARD_TRACE ? 'retain-on-failure' : 'off',
  },
  webServer: [
    {
      command: `node e2e/serve-ui.mjs ${UI_PORT}`,
      cwd: root,
      url: `${UI_ORIGIN}/ui`,
      timeout: 120_000,
      gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 10_000 },
    },
    ...Array.from({ length: WORLDS }, (_, world) => ({
      command: `node e2e/serve.mjs ${portOf(world)}`,
      cwd: root,
      // The server answers before its demo hangs whole; the control port does not.
      url: `${controlOf(world)}/whole`,
      timeout: 240_000,
      stdout: 'pipe' as const,
      gracefulShutdown: { signal: 'SIGTERM' as const, timeout: 10_000 },
    })),
  ],
});
