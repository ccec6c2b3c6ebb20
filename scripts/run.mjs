// Runs a TypeScript file of the project against the private database, starting that when it does not run, and ending it
// again then.
import { spawn } from 'node:child_process';
import { join, resolve } from 'node:path';
import {
  ensureNodeModules,
  ensureNodeVersion,
  ensureOwnFolder,
  ensurePrograms,
  root,
} from './lib/machine.mjs';
import { startDatabase } from './lib/mariadb.mjs';

const [, , script, ...rest] = process.argv;
/** What is measured has schemas of its own beside the house's. */
const schemas = script.startsWith('bench/') ? ['placard\\_bench%'] : [];
const data = resolve(root, process.env.PLACARD_DATA ?? 'var');
const port = Number(process.env.PORT ?? 4400);
const ownDatabase = process.env.DATABASE_URL === undefined;

ensureNodeVersion();
await ensurePrograms([
  ...(ownDatabase ? ['mariadbd', 'setpriv'] : []),
  ...(script.startsWith('server/backup/') ? ['mariadb-dump'] : []),
  'perl',
]);
await ensureNodeModules();
ensureOwnFolder(data);
const database = ownDatabase
  ? await startDatabase({ folder: join(data, 'database'), port: port + 6, schemas })
  : null;
const child = spawn(process.execPath, ['--import', 'tsx', script, ...rest], {
  cwd: root,
  stdio: 'inherit',
  env: {
    ...process.env,
    DATABASE_URL: database?.url ?? process.env.DATABASE_URL,
    PLACARD_DATA: data,
    PORT: String(port),
  },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
const code = await new Promise((done) => child.once('exit', done));
await database?.stop();
process.exit(code ?? 1);
