// Arrows point one way: web -> api -> core and server -> api -> core. This reads every import and says which one
// points elsewhere, and which run in a circle; and it says which screen is drawn with what it may not be drawn with.
import { readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { filesIn, isOwn, namedIn, targetOf } from './lib/imports.mjs';
import { root } from './lib/machine.mjs';
import { screenFaults } from './lib/screen-rules.mjs';

const AREAS = ['core', 'api', 'server', 'web', 'outside', 'demo', 'bench', 'e2e'];

/** Which areas each area may import from, besides itself. */
const ALLOWED = {
  core: [],
  api: ['core'],
  server: ['api', 'core'],
  web: ['api', 'core'],
  outside: [],
  demo: ['server', 'core', 'api', 'outside'],
  bench: ['server', 'core', 'api', 'demo'],
  e2e: ['server', 'core', 'api', 'demo'],
};

/** The entry points of the server may start the demo; nothing else of it knows the demo. */
const ENTRY_POINTS = new Set(['server/main.ts', 'server/export.ts']);

/** Tests of the server meet the world outside; the server itself never knows it. */
const isServerTest = (name) => name === 'server/testing.ts' || /^server\/.*\.test\.ts$/.test(name);

/** Packages that core may use: small and pure. */
const CORE_PACKAGES = new Set([
  'valibot',
  'parse5',
  'date-fns',
  'entities/decode',
  'any-ascii',
  'fast-deep-equal',
]);
const CORE_TEST_PACKAGES = new Set(['vitest', 'fast-check']);

const faults = [];
/** Which files of ours each file imports. */
const imported = new Map();

for (const area of AREAS) for (const file of filesIn(join(root, area))) check(area, file);
for (const fault of secondConnections()) faults.push(fault);
faults.push(...screenFaults(root));
for (const circle of circles())
  faults.push(`${circle.join(' -> ')}: files may not import each other in a circle.`);

if (faults.length > 0) {
  process.stderr.write(`${faults.join('\n')}\n`);
  process.exit(1);
}
if (imported.size < 50) {
  process.stderr.write('Too few files were read for this to mean anything.\n');
  process.exit(1);
}
process.stdout.write(`${imported.size} files, every import points the right way.\n`);

function check(area, file) {
  const name = relative(root, file);
  imported.set(name, new Set());
  for (const from of namedIn(file)) {
    if (isOwn(from)) checkOwn(area, name, file, from);
    else if (area === 'core') checkPackage(name, from);
  }
}

function checkOwn(area, name, file, from) {
  const target = targetOf(file, from);
  imported.get(name).add(target);
  if (isTestHelper(target) && !isOfTests(area, name))
    faults.push(`${name} imports ${from}: examples for tests are no part of the program.`);
  if (isKind(target) && !isListOfKinds(name) && !/\.test\.tsx?$/.test(name))
    faults.push(
      `${name} imports ${from}: kinds of blocks are listed once, and everything else asks the list.`,
    );
  const other = target.split('/')[0];
  if (other === area || !AREAS.includes(other)) return;
  if (other === 'outside' && isServerTest(name)) return;
  if (ALLOWED[area].includes(other)) return;
  if (ENTRY_POINTS.has(name) && other === 'demo') return;
  faults.push(`${name} imports ${from}: ${area} may not know ${other}.`);
}

/** What is particular to one kind of block, on a page and on the sheet. */
function isKind(name) {
  return /^(?:core\/page|web\/sheet)\/blocks\/[a-z-]+\/kind\.tsx?$/.test(name);
}

function isListOfKinds(name) {
  return /^(?:core\/page|web\/sheet)\/blocks\/kinds\.ts$/.test(name);
}

function isTestHelper(name) {
  return /(^|\/)(testing|mounted)\.tsx?$/.test(name);
}

function isOfTests(area, name) {
  return area === 'bench' || area === 'e2e' || /\.test\.tsx?$/.test(name) || isTestHelper(name);
}

function checkPackage(name, from) {
  if (CORE_PACKAGES.has(from) || (isOfTests('core', name) && CORE_TEST_PACKAGES.has(from))) return;
  faults.push(
    `${name} imports ${from}: core is pure computation and uses only ${[...CORE_PACKAGES].join(', ')}.`,
  );
}

/** Each circle once, from the file at which it was met. A walk that comes back to a file it is still in has found one. */
function circles() {
  const found = [];
  const left = new Set();
  const walk = (name, path) => {
    const at = path.indexOf(name);
    if (at >= 0) found.push([...path.slice(at), name]);
    if (at >= 0 || left.has(name)) return;
    for (const next of imported.get(name) ?? []) walk(next, [...path, name]);
    left.add(name);
  };
  for (const name of imported.keys()) walk(name, []);
  return found;
}

/**
 * Places where what runs in a transaction asks the pool: it would wait for a second connection, which others that wait
 * for the same never give back. Inside, only what is handed in asks.
 */
function* secondConnections() {
  for (const name of imported.keys()) {
    if (!name.startsWith('server/') || /\.test\.ts$/.test(name)) continue;
    const text = readFileSync(join(root, name), 'utf8');
    for (const { index } of text.matchAll(/\.transaction\(/g)) {
      const work = text.slice(index, closing(text, index + '.transaction'.length));
      const found =
        /\b(?:context\b(?!\.(?:config|signatures|log|secret)\b)|db\.(?:select|insert|update|delete|execute|transaction)\b)/.exec(
          work,
        );
      if (found)
        yield `${name}: inside a transaction "${found[0]}" asks for a second connection. Use what the transaction hands in.`;
    }
  }
}

/** Where the bracket that opens at a place closes. Brackets in strings stand in pairs in this code. */
function closing(text, from) {
  let depth = 0;
  for (let at = from; at < text.length; at += 1) {
    if (text[at] === '(') depth += 1;
    if (text[at] === ')') depth -= 1;
    if (depth === 0) return at;
  }
  return text.length;
}
