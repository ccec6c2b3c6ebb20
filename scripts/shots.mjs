// Takes the pictures in docs/screenshots from the demo: from the Placard that runs, or from one started for it.
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { ensureWebBuild } from './lib/build.mjs';
import {
  ensureNodeModules,
  ensureNodeVersion,
  ensureOwnFolder,
  ensurePrograms,
  root,
} from './lib/machine.mjs';
import { startDatabase } from './lib/mariadb.mjs';
import { startServices } from './lib/services.mjs';

ensureNodeVersion();
await ensurePrograms(['mariadbd', 'perl', 'setpriv', 'pdftoppm', 'chromium']);
await ensureNodeModules();
const port = Number(process.env.PORT ?? 4400);
const origin = `http://localhost:${port}`;
const runs = await fetch(origin).then(
  () => true,
  () => false,
);
const services = runs ? null : await startOwn();
const done = spawnSync(process.execPath, ['--import', 'tsx', 'e2e/shots.ts'], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, PLACARD_ORIGIN: origin },
});
await services?.stop();
process.exit(done.status ?? 1);

async function startOwn() {
  await ensureWebBuild();
  const data = resolve(root, process.env.PLACARD_DATA ?? 'var');
  ensureOwnFolder(data);
  const database = await startDatabase({ folder: join(data, 'database'), port: port + 6 });
  const services = startServices({
    env: { ...process.env, DATABASE_URL: database.url, PLACARD_DATA: data, PORT: String(port) },
    port,
  });
  await services.listening;
  await services.whole;
  return {
    stop: async () => {
      await services.stop();
      await database.stop();
    },
  };
}
