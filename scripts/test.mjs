// npm test: everything that has to hold, in the order in which it is quickest to know, on ports and folders of its
// own. Ends in one line, "N passed, N failed".
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { stripVTControlCharacters } from 'node:util';
import {
  ensureNodeModules,
  ensureNodeVersion,
  ensureOwnFolder,
  ensurePrograms,
  root,
  say,
} from './lib/machine.mjs';
import { startDatabase } from './lib/mariadb.mjs';

const DATABASE_PORT = 4516;
const folder = join(root, 'var', 'test');
/** Most characters that are printed of one failed test's screen. */
const MOST_SEEN = 8000;
/** Most characters of why a test failed that are told once more at the end. */
const MOST_WHY = 700;
const only = process.argv.slice(2);

ensureNodeVersion();
await ensurePrograms(['mariadbd', 'perl', 'setpriv', 'ffmpeg', 'pdftoppm', 'chromium', 'sshd']);
await ensureNodeModules();
ensureOwnFolder(folder);
const database = await startDatabase({
  folder: join(folder, 'database'),
  port: DATABASE_PORT,
  schemas: ['placard\\_%'],
});

const env = {
  ...process.env,
  TEST_DATABASE_SERVER: database.url.replace(/\/placard$/, ''),
  TEST_FOLDER: folder,
  PLACARD_PAINTINGS: join(root, 'var', 'paintings'),
  FORCE_COLOR: '0',
};

/** Each step with what it runs; a step without a report counts as one test. */
const STEPS = [
  { name: 'format and lint', command: ['biome', 'check', '--error-on-warnings'] },
  { name: 'types', command: ['tsc', '--noEmit'] },
  { name: 'boundaries', command: ['node', 'scripts/boundaries.mjs'] },
  { name: 'drawing', command: ['node', 'scripts/draw.mjs', '--check'] },
  { name: 'unused code', command: ['knip'] },
  { name: 'unit', command: ['vitest', 'run', '--project', 'unit'], report: 'unit' },
  { name: 'server', command: ['vitest', 'run', '--project', 'server'], report: 'server' },
  { name: 'web build', command: ['vite', 'build', '--logLevel', 'warn'] },
  {
    name: 'interface',
    command: ['playwright', 'test', '--config', 'e2e/playwright.config.ts'],
    report: 'interface',
  },
];

let passed = 0;
let failed = 0;
/** What is told last, where a long log is read from its end. */
const told = [];
const began = Date.now();
for (const step of STEPS.filter(({ name }) => only.length === 0 || only.includes(name))) {
  const start = Date.now();
  say(`\n== ${step.name}`);
  const { ok, counts } = run(step);
  passed += counts.passed;
  failed += counts.failed;
  say(`== ${step.name}: ${ok ? 'passed' : 'failed'} in ${Math.round((Date.now() - start) / 1000)} s`);
}
await database.stop();
for (const one of told) say(one);
say(`\nIn ${Math.round((Date.now() - began) / 1000)} s`);
say(`${passed} passed, ${failed} failed`);
process.exit(failed > 0 || passed === 0 ? 1 : 0);

function run(step) {
  const [program, ...args] = step.command;
  const bin = program === 'node' ? process.execPath : join(root, 'node_modules', '.bin', program);
  const report = step.report ? join(folder, `${step.report}.json`) : null;
  if (report) rmSync(report, { force: true });
  const more =
    report && program === 'vitest'
      ? ['--reporter=default', '--reporter=json', `--outputFile.json=${report}`]
      : [];
  const done = spawnSync(bin, [...args, ...more], {
    cwd: root,
    stdio: 'inherit',
    env: { ...env, ...(report ? { TEST_REPORT: report } : {}) },
  });
  const ok = done.status === 0;
  if (!ok && program === 'playwright') sayLastSeen();
  const counts = report ? countsOf(report, ok) : { passed: ok ? 1 : 0, failed: ok ? 0 : 1 };
  if (!ok) told.push(`\n== failed: ${step.name}`, ...(report ? failuresOf(report) : []));
  return { ok, counts };
}

/** What stood on the screen when an interface test failed; elsewhere nobody can look at it afterwards. */
function sayLastSeen() {
  const results = join(root, 'test-results');
  if (!existsSync(results)) return;
  for (const test of readdirSync(results)) {
    const context = join(results, test, 'error-context.md');
    if (existsSync(context)) say(`\n-- ${test}\n${readFileSync(context, 'utf8').slice(0, MOST_SEEN)}`);
  }
}

/** Each failed test of a report by its name, with why. */
function failuresOf(report) {
  if (!existsSync(report)) return [];
  const said = JSON.parse(readFileSync(report, 'utf8'));
  const failures = said.suites
    ? specsOf(said.suites)
        .filter(({ ok }) => !ok)
        .map(({ title, file, line, tests }) => ({
          name: `${file}:${line} ${title}`,
          why: tests.flatMap(({ results }) => results.flatMap(({ errors }) => errors))[0]?.message,
        }))
    : said.testResults
        .flatMap(({ assertionResults }) => assertionResults)
        .filter(({ status }) => status === 'failed')
        .map(({ fullName, failureMessages }) => ({ name: fullName, why: failureMessages[0] }));
  return failures.map(
    ({ name, why }) => `- ${name}\n${stripVTControlCharacters(why ?? '').slice(0, MOST_WHY)}`,
  );
}

function specsOf(suites) {
  return suites.flatMap((suite) => [...(suite.specs ?? []), ...specsOf(suite.suites ?? [])]);
}

/** Counts of a report; a step that failed without saying how counts as one failure. */
function countsOf(report, ok) {
  let counts = { passed: 0, failed: 0 };
  try {
    const said = JSON.parse(readFileSync(report, 'utf8'));
    counts = said.stats
      ? { passed: said.stats.expected, failed: said.stats.unexpected + said.stats.flaky }
      : { passed: said.numPassedTests, failed: said.numFailedTests };
  } catch (error) {
    say(`No report was written: ${error.message}`);
  }
  if (!ok && counts.failed === 0) return { ...counts, failed: 1 };
  if (ok && counts.passed === 0) return { passed: 0, failed: 1 };
  return counts;
}
