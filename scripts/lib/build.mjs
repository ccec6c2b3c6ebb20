// Builds the web part when its sources are newer than what was built.
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, run, say } from './machine.mjs';

const SOURCES = ['web', 'core', 'api', 'package-lock.json', 'vite.config.ts'];

export async function ensureWebBuild() {
  const stampFile = join(root, 'dist', 'built-from');
  const stamp = sourcesStamp();
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === stamp) return;
  say('Building the web part.');
  await run('npx', ['vite', 'build', '--logLevel', 'warn']);
  writeFileSync(stampFile, stamp);
}

/** Changes whenever a source file is added, removed or written. */
function sourcesStamp() {
  const hash = createHash('sha256');
  const add = (path) => {
    const stat = statSync(path);
    if (stat.isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name));
    else if (!path.endsWith('.test.ts')) hash.update(`${path} ${stat.size} ${stat.mtimeMs}\n`);
  };
  for (const source of SOURCES) add(join(root, source));
  return hash.digest('hex');
}
