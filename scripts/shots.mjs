// Takes the pictures in docs/screenshots from the demo: from the Placard that runs, or from one started for it.
import { spawnSync } from 'node:child_process';
import { join, resolve } from 'node:path';
import { ensureWebBuild } from './lib/build.mjs';
import { ensureNodeModules, ensureNodeVersion, ensurePrograms, root } from './lib/machine.mjs';
import { startDatabase } from './lib/mariadb.mjs';
import { startServices } from './lib/services.mjs';

ensureNodeVersion();
ensurePrograms(['mariadbd', 'perl', 'chromium']);
ensureNodeModules();
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
  ensureWebBuild();
  const data = resolve(root, process.env.PLACARD_DATA ?? 'var');
  const databaseUrl = await startDatabase({ folder: join(data, 'database'), port: port + 6 });
  return startServices({
    env: { ...process.env, DATABASE_URL: databaseUrl, PLACARD_DATA: data, PORT: String(port) },
    port,
  });
}
