import { spawn } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { examplePlacement, PLAIN_RULES, paragraph } from '#core/page/testing.ts';
import { people, targets } from '../server/db/schema.ts';
import { FROM_OWN_MACHINE } from '../server/gather/incoming.ts';
import { takeIn } from '../server/gather/take-in.ts';
import { hashPassword } from '../server/people/passwords.ts';
import { say } from './measure.ts';
import { type BenchWorld, paintOriginals } from './world.ts';

/** So many people work at once, each thinking a moment between two deeds. */
const PEOPLE = 50;
const SECONDS = 60;
const THINK_MILLIS = { least: 200, most: 800 };
const PIECES = 24;
const PORT = 4580;
const ORIGIN = `http://localhost:${PORT}`;
const PASSWORD = 'reeds-and-water';

interface Editor {
  readonly cookie: string;
  readonly pageId: string;
  version: number;
  readonly asset: { readonly id: string; version: number; readonly thumb: string };
}

/** A minute of a full house, against a server that is a process of its own. */
export async function benchLoad(world: BenchWorld): Promise<void> {
  await furnish(world);
  const server = await startServer(world);
  try {
    const editors = await Promise.all(Array.from({ length: PEOPLE }, (_, at) => signIn(at)));
    const times = new Map<string, number[]>();
    const faults = new Map<string, number>();
    let most = 0;
    const watch = setInterval(async () => {
      most = Math.max(most, await heldBytes(server.pid ?? 0));
    }, 500);
    const until = Date.now() + SECONDS * 1000;
    await Promise.all(editors.map((editor) => work(editor, until, times, faults)));
    clearInterval(watch);
    tell(times, faults, most);
  } finally {
    const ended = new Promise((resolve) => server.once('exit', resolve));
    server.kill('SIGTERM');
    await ended;
  }
}

async function furnish({ context, folder }: BenchWorld): Promise<void> {
  const passwordHash = await hashPassword(PASSWORD);
  await context.db.insert(people).values(
    Array.from({ length: PEOPLE }, (_, at) => ({
      id: `person-${at}`,
      name: `Person ${at}`,
      role: 'editor',
      email: `person-${at}@saltmere.example`,
      passwordHash,
    })),
  );
  await context.db.insert(targets).values({ id: 'reserve', rules: PLAIN_RULES });
  const paths = await paintOriginals(folder, PIECES, { width: 1600, height: 1000 });
  for (const path of paths)
    await takeIn(
      context,
      {
        path,
        name: basename(path),
        personId: 'person-0',
        folder: '',
        pageId: null,
        origin: FROM_OWN_MACHINE,
      },
      new Date(),
    );
}

async function startServer({ context, folder }: BenchWorld) {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
    env: {
      ...process.env,
      DATABASE_URL: context.config.databaseUrl,
      PLACARD_DATA: folder,
      PLACARD_DEMO: '0',
      PORT: String(PORT),
      PLACARD_ORIGIN: ORIGIN,
      PLACARD_MEDIA_ORIGIN: `http://127.0.0.1:${PORT}`,
    },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await new Promise((resolve) => child.once('message', resolve));
  return child;
}

async function ask(path: string, method: string, cookie: string, body?: unknown, version?: number) {
  const response = await fetch(`${ORIGIN}/api${path}`, {
    method,
    headers: {
      cookie,
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...(version === undefined ? {} : { 'if-match': `"${version}"` }),
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  });
  const answer = response.status === 204 ? null : await response.json();
  if (!response.ok) throw new Error(String(response.status));
  return { answer, response };
}

async function signIn(at: number): Promise<Editor> {
  const { response } = await ask('/session', 'POST', '', {
    email: `person-${at}@saltmere.example`,
    password: PASSWORD,
  });
  const cookie = response.headers.get('set-cookie')?.split(';')[0] ?? '';
  const page = { title: `Page of ${at}`, targetId: 'reserve', wants: [] };
  const made = await ask('/pages', 'POST', cookie, page);
  const shelf = await ask('/assets?limit=50', 'GET', cookie);
  const asset = shelf.answer.assets[at % shelf.answer.assets.length];
  return { cookie, pageId: made.answer.id, version: 1, asset };
}

type Deed = readonly [string, (editor: Editor, count: number) => Promise<unknown>];

const DEEDS: readonly Deed[] = [
  ['the Desk', ({ cookie }) => ask('/desk', 'GET', cookie)],
  [
    'the shelf',
    ({ cookie }, count) => ask(`/assets?limit=40&words=${count % 2 ? 'heron' : ''}`, 'GET', cookie),
  ],
  ['a page opened', ({ cookie, pageId }) => ask(`/pages/${pageId}`, 'GET', cookie)],
  ['a page saved', savePage],
  ['a page saved', savePage],
  ['a page saved', savePage],
  ['findings', ({ cookie, pageId }) => ask(`/pages/${pageId}/findings`, 'GET', cookie)],
  ['a piece opened', ({ cookie, asset }) => ask(`/assets/${asset.id}`, 'GET', cookie)],
  ['a small picture', async ({ asset }) => (await fetch(asset.thumb)).arrayBuffer()],
  ['a small picture', async ({ asset }) => (await fetch(asset.thumb)).arrayBuffer()],
];

async function savePage(editor: Editor, count: number): Promise<void> {
  const placed = {
    type: 'placement',
    attrs: examplePlacement('column', { asset: editor.asset.id }),
  } as const;
  const words = Array.from({ length: 20 }, (_, at) =>
    paragraph(`Line ${at} of save ${count}, with some words in it.`),
  );
  const doc = { title: 'A page', wants: [], tray: [], blocks: [...words, placed] };
  const { answer } = await ask(`/pages/${editor.pageId}`, 'PUT', editor.cookie, { doc }, editor.version);
  editor.version = answer.version;
}

async function work(
  editor: Editor,
  until: number,
  times: Map<string, number[]>,
  faults: Map<string, number>,
): Promise<void> {
  for (let count = Math.floor(Math.random() * DEEDS.length); Date.now() < until; count += 1) {
    const deed = DEEDS[count % DEEDS.length];
    if (!deed) return;
    const [name, run] = deed;
    const start = performance.now();
    try {
      await run(editor, count);
      const list = times.get(name) ?? [];
      list.push(performance.now() - start);
      times.set(name, list);
    } catch (error) {
      const fault = `${name}: ${error instanceof Error ? error.message : error}`;
      faults.set(fault, (faults.get(fault) ?? 0) + 1);
    }
    const { least, most } = THINK_MILLIS;
    await new Promise((resolve) => setTimeout(resolve, least + Math.random() * (most - least)));
  }
}

function tell(times: ReadonlyMap<string, number[]>, faults: ReadonlyMap<string, number>, most: number): void {
  const all = [...times.values()].flat();
  say(`load: ${PEOPLE} people for ${SECONDS} s, answers a second`, (all.length / SECONDS).toFixed(0));
  for (const [name, list] of [['all', all] as const, ...times])
    say(`load: ${name}, ${list.length} times: p50, p95, p99`, percentiles(list));
  say('load: not answered', [...faults].map(([name, count]) => `${count} × ${name}`).join(', ') || 'none');
  say('load: most memory of the server', `${Math.round(most / 1_000_000)} MB`);
}

function percentiles(list: readonly number[]): string {
  const sorted = [...list].sort((one, other) => one - other);
  const at = (share: number) =>
    Math.round(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0);
  return `${at(0.5)}, ${at(0.95)}, ${at(0.99)} ms`;
}

async function heldBytes(pid: number): Promise<number> {
  const statm = await readFile(`/proc/${pid}/statm`, 'latin1').catch(() => '0 0');
  return Number(statm.split(' ')[1] ?? 0) * 4096;
}
