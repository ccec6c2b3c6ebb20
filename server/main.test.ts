import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';

/** The server as whoever runs it starts it: a process of its own, on a fresh database. */

const databaseServer = process.env.TEST_DATABASE_SERVER ?? '';
const DATABASE = 'placard_process';
const PORT = 4530;
const ORIGIN = `http://localhost:${PORT}`;

let folder: string;
const started: ChildProcess[] = [];

beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'placard-process-'));
  const connection = await createConnection(databaseServer);
  await connection.query(`DROP DATABASE IF EXISTS ${DATABASE}`);
  await connection.query(`CREATE DATABASE ${DATABASE} CHARACTER SET utf8mb4`);
  await connection.end();
});
afterEach(async () => {
  for (const child of started.splice(0)) if (child.exitCode === null) child.kill('SIGKILL');
  await rm(folder, { recursive: true, force: true });
});

interface Started {
  readonly child: ChildProcess;
  readonly said: () => string;
  readonly ended: Promise<number | null>;
  readonly listening: Promise<void>;
}

function start(env: Readonly<Record<string, string>> = {}): Started {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    env: {
      ...process.env,
      DATABASE_URL: `${databaseServer}/${DATABASE}`,
      PLACARD_DATA: folder,
      PLACARD_DEMO: '0',
      PORT: String(PORT),
      NODE_ENV: 'production',
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
  });
  started.push(child);
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream?.on('data', (part) => (said += part));
  return {
    child,
    said: () => said,
    ended: new Promise((resolve) => child.once('exit', resolve)),
    listening: new Promise((resolve) => child.once('message', () => resolve())),
  };
}

/** Processes that were started by one, and by those. */
async function descendants(pid: number): Promise<readonly number[]> {
  const parents = new Map<number, number>();
  for (const name of await readdir('/proc')) {
    const stat = /^\d+$/.test(name) ? await readFile(`/proc/${name}/stat`, 'utf8').catch(() => '') : '';
    const parent = /^\d+ \(.*\) \S (\d+)/s.exec(stat)?.[1];
    if (parent) parents.set(Number(name), Number(parent));
  }
  const found = [pid];
  for (const one of found) for (const [child, parent] of parents) if (parent === one) found.push(child);
  return found.slice(1);
}

/** Whether a process runs; one that has ended and waits for somebody to ask how does not. */
async function isAlive(pid: number): Promise<boolean> {
  const stat = await readFile(`/proc/${pid}/stat`, 'utf8').catch(() => '');
  return stat !== '' && !/^\d+ \(.*\) Z/s.test(stat);
}

/** Begins the house, hands in a picture's bytes, and answers what it was told. */
async function begin(said: string): Promise<string> {
  const code = /code=(\S+)/.exec(said)?.[1];
  const answer = await fetch(`${ORIGIN}/api/beginning`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      code,
      name: 'Sunniva Brandt',
      email: 'sunniva@reserve.example',
      password: 'wind over the reeds',
      target: { name: 'Reserve site', siteAddress: '', commercial: false },
    }),
  });
  expect(answer.status).toBe(201);
  await answer.text();
  return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}

const JPEG =
  '/9j/4AAQSkZJRgABAQEASABIAAD/2wBDAP//////////////////////////////////////////////////////////////////////////////////////wgALCAABAAEBAREA/8QAFBABAAAAAAAAAAAAAAAAAAAAAP/aAAgBAQABPxA=';

async function handIn(cookie: string): Promise<void> {
  const bytes = Buffer.from(JPEG, 'base64');
  const tus = { cookie, 'tus-resumable': '1.0.0' };
  const begun = await fetch(`${ORIGIN}/api/uploads`, {
    method: 'POST',
    headers: { ...tus, 'upload-length': String(bytes.length) },
  });
  const path = begun.headers.get('location') ?? '';
  await fetch(`${ORIGIN}${path}`, {
    method: 'PATCH',
    headers: { ...tus, 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
    body: bytes,
  });
  await fetch(`${ORIGIN}/api/arrivals`, {
    method: 'POST',
    headers: { cookie, 'content-type': 'application/json' },
    body: JSON.stringify({ uploadId: path.split('/').at(-1) }),
  });
}

describe('a server', () => {
  it('says that it is there and that it can work, and answers what is asked when it is told to end', async () => {
    const server = start();
    await server.listening;
    expect(await (await fetch(`${ORIGIN}/healthz`)).json()).toEqual({ ok: true });
    expect(await (await fetch(`${ORIGIN}/readyz`)).json()).toMatchObject({
      ok: true,
      database: true,
      files: true,
    });
    const cookie = await begin(server.said());
    const asked = Promise.all(
      Array.from({ length: 30 }, () => fetch(`${ORIGIN}/api/desk`, { headers: { cookie } })),
    );
    await new Promise((resolve) => setTimeout(resolve, 20));
    server.child.kill('SIGTERM');
    const answers = await asked;
    expect(answers.map(({ status }) => status)).toEqual(Array.from({ length: 30 }, () => 200));
    expect(await server.ended).toBe(0);
  }, 60_000);

  it('that is killed leaves nothing running behind it', async () => {
    const server = start();
    await server.listening;
    await handIn(await begin(server.said()));
    const pids = await descendants(server.child.pid ?? 0);
    expect(pids.length).toBeGreaterThan(1);
    server.child.kill('SIGKILL');
    await server.ended;
    await new Promise((resolve) => setTimeout(resolve, 500));
    const alive = await Promise.all(pids.map(isAlive));
    expect(pids.filter((_pid, at) => alive[at])).toEqual([]);
  }, 60_000);

  it('ends when whoever started it is gone', async () => {
    const server = start();
    await server.listening;
    server.child.disconnect();
    expect(await server.ended).toBe(0);
  }, 60_000);

  it('does not say that it listens where the port is taken, and says what to do', async () => {
    const other = createServer().listen(PORT, '127.0.0.1');
    await new Promise((resolve) => other.once('listening', resolve));
    const server = start();
    let isListening = false;
    void server.listening.then(() => {
      isListening = true;
    });
    expect(await server.ended).toBe(1);
    expect(isListening).toBe(false);
    expect(server.said()).toContain(`Port ${PORT} on this machine is taken by another program`);
    other.close();
  }, 60_000);

  it.each([
    [{ DATABASE_URL: 'nonsense' }, 'DATABASE_URL has to be an address'],
    [{ PLACARD_DEMO: '1', PLACARD_ORIGIN: 'https://placard.reserve.example' }, 'is only for this machine'],
    [{ PLACARD_KEEP_DAYS: 'herons=3' }, 'PLACARD_KEEP_DAYS is written as'],
    [{ PORT: 'many' }, 'PORT has to be a whole number'],
  ])(
    'with %j does not start, and says why',
    async (env, sentence) => {
      const server = start(env);
      expect(await server.ended).toBe(1);
      expect(server.said()).toContain(sentence);
    },
    60_000,
  );

  it('hangs no demo in a house that has begun', async () => {
    const house = start();
    await house.listening;
    await begin(house.said());
    house.child.kill('SIGTERM');
    await house.ended;
    const forgetful = start({ PLACARD_DEMO: '1', PLACARD_DEMO_SHARE: '0.05' });
    expect(await forgetful.ended).toBe(1);
    expect(forgetful.said()).toContain('This database holds a house that has begun');
    const connection = await createConnection(`${databaseServer}/${DATABASE}`);
    const [people] = await connection.query('SELECT email FROM people');
    await connection.end();
    expect(people).toEqual([{ email: 'sunniva@reserve.example' }]);
  }, 60_000);
});
