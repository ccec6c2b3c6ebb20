// npm start: from an empty machine to a running Placard, and in seconds from the second time on.
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { ensureWebBuild } from './lib/build.mjs';
import { ensureNodeModules, ensureNodeVersion, ensurePrograms, root, say } from './lib/machine.mjs';
import { startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { startServices } from './lib/services.mjs';

const port = Number(process.env.PORT ?? 4400);
const data = resolve(root, process.env.PLACARD_DATA ?? 'var');

ensureNodeVersion();
const ownDatabase = process.env.DATABASE_URL === undefined;
ensurePrograms(ownDatabase ? ['mariadbd', 'perl', 'ffmpeg'] : ['perl', 'ffmpeg']);
ensureNodeModules();
ensureWebBuild();
mkdirSync(data, { recursive: true });

const databaseFolder = join(data, 'database');
const databaseUrl =
  process.env.DATABASE_URL ?? (await startDatabase({ folder: databaseFolder, port: port + 6 }));
const env = { ...process.env, DATABASE_URL: databaseUrl, PLACARD_DATA: data, PORT: String(port) };
const services = await startServices({ env, port });

say(`\nPlacard is at ${process.env.PLACARD_ORIGIN ?? `http://localhost:${port}`}`);
if (env.PLACARD_DEMO !== '0') {
  say(
    'Sign in as mara@saltmere.example (editor), piet@ (rights keeper), sunniva@ (site owner) or joss@ (contributor).',
  );
  say('The password of all four is saltmere-2026');
}
say('Ctrl C ends it.');

for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, async () => {
    await services.stop();
    if (ownDatabase) stopDatabase({ folder: databaseFolder });
    process.exit(0);
  });
}
await services.ended;
if (ownDatabase) stopDatabase({ folder: databaseFolder });
process.exit(1);
