// npm run mutate [-- core/rights ...]: changes the code of what is computed, one small fault at a time, and tells which
// faults no test notices. Takes minutes for a folder; what was known of unchanged code is kept in var/mutate.
import { spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureNodeModules, ensureNodeVersion, root } from './lib/machine.mjs';

/** The heart of the product, where a fault would go out unseen. */
const HEART = ['core/rights', 'core/media', 'core/naming', 'core/embed', 'core/page', 'core/proof'];
/** Least share of faults that have to be noticed, in percent. */
const LEAST = 85;

ensureNodeVersion();
await ensureNodeModules();
const folder = join(root, 'var', 'mutate');
mkdirSync(folder, { recursive: true });
let isBad = false;
for (const part of process.argv.length > 2 ? process.argv.slice(2) : HEART)
  isBad = !(await mutate(part)) || isBad;
process.exit(isBad ? 1 : 0);

async function mutate(part) {
  const name = part.replaceAll('/', '-').replace(/\.ts$/, '');
  const config = join(folder, `${name}.config.json`);
  writeFileSync(
    config,
    JSON.stringify({
      // Tests run without types, and TypeScript 7 has no way to have its settings rewritten.
      tsconfigFile: 'none',
      ignorePatterns: ['/var', '/dist', '/docs', '/test-results'],
      testRunner: 'vitest',
      vitest: { configFile: 'scripts/lib/mutate.vitest.config.ts' },
      plugins: ['@stryker-mutator/vitest-runner'],
      mutate: [part.endsWith('.ts') ? part : `${part}/**/*.ts`, '!**/*.test.ts', '!**/testing.ts'],
      coverageAnalysis: 'perTest',
      // Sentences are for people and change with them; what is computed is what must not change unseen.
      mutator: { excludedMutations: ['StringLiteral'] },
      ignoreStatic: true,
      incremental: true,
      incrementalFile: join(folder, `${name}.json`),
      reporters: ['clear-text', 'json'],
      clearTextReporter: { logTests: false, allowColor: false, reportTests: false, reportScoreTable: true },
      jsonReporter: { fileName: join(folder, `${name}.report.json`) },
      thresholds: { high: 95, low: LEAST, break: LEAST },
      concurrency: 2,
      timeoutMS: 10_000,
      tempDirName: join(folder, 'work'),
      allowEmpty: true,
    }),
  );
  const child = spawn(join(root, 'node_modules', '.bin', 'stryker'), ['run', config], {
    cwd: root,
    stdio: 'inherit',
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  return (await new Promise((resolve) => child.once('exit', resolve))) === 0;
}
