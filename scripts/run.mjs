// Runs a TypeScript file of the project against the private database, starting that when it does not run.
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureNodeModules, ensureNodeVersion, ensurePrograms, root } from './lib/machine.mjs';
import { startDatabase } from './lib/mariadb.mjs';

const [, , script, ...rest] = process.argv;
ensureNodeVersion();
ensurePrograms(['mariadbd', 'perl']);
ensureNodeModules();
const data = resolve(root, process.env.PLACARD_DATA ?? 'var');
mkdirSync(data, { recursive: true });
const port = Number(process.env.PORT ?? 4400);
const databaseUrl =
  process.env.DATABASE_URL ?? (await startDatabase({ folder: join(data, 'database'), port: port + 6 }));
const done = spawnSync(process.execPath, ['--import', 'tsx', script, ...rest], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: databaseUrl, PLACARD_DATA: data, PORT: String(port) },
});
process.exit(done.status ?? 1);
