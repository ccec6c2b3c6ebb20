// npm start: from an empty machine to a running Placard, and in seconds from the second time on. Whenever it ends,
// nothing that it started is left.
import { join, resolve } from 'node:path';
import { ensureWebBuild } from './lib/build.mjs';
import {
  endRunning,
  ensureNodeModules,
  ensureNodeVersion,
  ensureOwnFolder,
  ensurePrograms,
  root,
  say,
} from './lib/machine.mjs';
import { startDatabase, stopDatabase } from './lib/mariadb.mjs';
import { startServices } from './lib/services.mjs';

const port = Number(process.env.PORT ?? 4400);
const data = resolve(root, process.env.PLACARD_DATA ?? 'var');
const databaseFolder = join(data, 'database');
const ownDatabase = process.env.DATABASE_URL === undefined;

let services = null;
let database = null;
let isEnding = false;
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void end(0));

ensureNodeVersion();
await ensurePrograms(
  ownDatabase ? ['mariadbd', 'perl', 'setpriv', 'ffmpeg', 'pdftoppm'] : ['perl', 'ffmpeg', 'pdftoppm'],
);
await ensureNodeModules();
await ensureWebBuild();
ensureOwnFolder(data);
if (ownDatabase) database = await startDatabase({ folder: databaseFolder, port: port + 6 });
const databaseUrl = database?.url ?? process.env.DATABASE_URL;
const env = { ...process.env, DATABASE_URL: databaseUrl, PLACARD_DATA: data, PORT: String(port) };
services = startServices({ env, port });
await services.listening.catch(() => end(1));

say(`\nPlacard is at ${process.env.PLACARD_ORIGIN ?? `http://localhost:${port}`}`);
if (env.PLACARD_DEMO !== '0') {
  say(
    'Sign in as mara@saltmere.example (editor), piet@ (rights keeper), sunniva@ (site owner) or joss@ (contributor).',
  );
  say('The password of all four is saltmere-2026');
}
say('Ctrl C ends it.');
await services.ended;
await end(1);

/** Ends all that was started, in whatever order it is asked, and then this. */
async function end(code) {
  if (isEnding) return new Promise(() => {});
  isEnding = true;
  endRunning();
  await services?.stop();
  // Also where the signal came while it was starting, before it could be said how to stop it.
  if (database) await database.stop();
  else if (ownDatabase) await stopDatabase(databaseFolder);
  process.exit(code);
}
