// A private MariaDB on loopback, kept in a folder of its own. It outlives the process that started it, so that
// the next start takes seconds; `stop` ends exactly the one that belongs to the folder.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, openSync, readFileSync } from 'node:fs';
import { createConnection } from 'node:net';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { say, stopWith } from './machine.mjs';

const WAIT_STEP_MILLIS = 100;
const WAIT_LIMIT_MILLIS = 60_000;

/** Starts the database in `folder` on `port` unless it runs already, and returns its address. */
export async function startDatabase({ folder, port }) {
  const data = join(folder, 'data');
  if (!existsSync(join(data, 'mysql'))) install(folder, data);
  if (!(await answers(port))) {
    say('Starting the database.');
    launch(folder, data, port);
    await untilItAnswers(port, folder);
  }
  createSchema(folder);
  return `mysql://root@127.0.0.1:${port}/placard`;
}

/** Ends the database of `folder`, if it runs. */
export function stopDatabase({ folder }) {
  const pidFile = join(folder, 'mariadb.pid');
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, 'utf8'));
  try {
    process.kill(pid, 'SIGTERM');
  } catch (error) {
    if (error.code !== 'ESRCH') throw error;
  }
}

function install(folder, data) {
  say('Making a private database.');
  mkdirSync(folder, { recursive: true });
  const user = userInfo().username;
  const done = spawnSync(
    'mariadb-install-db',
    [
      '--no-defaults',
      `--datadir=${data}`,
      '--auth-root-authentication-method=normal',
      `--user=${user}`,
      '--skip-test-db',
    ],
    { encoding: 'utf8' },
  );
  if (done.status !== 0) stopWith(`The database could not be made in ${data}:\n${done.stdout}${done.stderr}`);
}

function launch(folder, data, port) {
  const log = openSync(join(folder, 'mariadb.log'), 'a');
  const server = spawn(
    '/usr/sbin/mariadbd',
    [
      '--no-defaults',
      `--datadir=${data}`,
      `--user=${userInfo().username}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      `--socket=${join(folder, 'mariadb.sock')}`,
      `--pid-file=${join(folder, 'mariadb.pid')}`,
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--innodb-buffer-pool-size=256M',
      '--max-allowed-packet=64M',
    ],
    { detached: true, stdio: ['ignore', log, log] },
  );
  server.unref();
}

function createSchema(folder) {
  const done = spawnSync(
    'mariadb',
    [
      '--no-defaults',
      `--socket=${join(folder, 'mariadb.sock')}`,
      '-u',
      'root',
      '-e',
      'CREATE DATABASE IF NOT EXISTS placard CHARACTER SET utf8mb4',
    ],
    { encoding: 'utf8' },
  );
  if (done.status !== 0) stopWith(`The database does not answer as expected: ${done.stderr}`);
}

async function untilItAnswers(port, folder) {
  for (let waited = 0; waited < WAIT_LIMIT_MILLIS; waited += WAIT_STEP_MILLIS) {
    if (await answers(port)) return;
    await new Promise((resolve) => setTimeout(resolve, WAIT_STEP_MILLIS));
  }
  stopWith(`The database did not start within a minute. Its log is ${join(folder, 'mariadb.log')}.`);
}

function answers(port) {
  return new Promise((resolve) => {
    const socket = createConnection({ host: '127.0.0.1', port });
    socket.once('connect', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });
}
