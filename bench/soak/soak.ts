import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { inArray } from 'drizzle-orm';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { readConfig } from '../../server/config.ts';
import { closeContext, openContext } from '../../server/context.ts';
import { jobs, people, settings, targets } from '../../server/db/schema.ts';
import { hashPassword } from '../../server/people/passwords.ts';
import { auditHouse, type Found } from './audit.ts';
import {
  type Acknowledged,
  gatherer,
  type Hands,
  labeller,
  packer,
  runner,
  saver,
  uploader,
} from './hands.ts';
import { type Shape, World } from './world.ts';

/**
 * npm run soak: kills server, worker and database at random instants while pictures are handed in, pages and labels
 * saved, runs, gatherings and ZIPs made, on disk and on a bucket, in one process and in three. Ends in a table of what was
 * lost, doubled, stuck and left lying. Ten minutes in all; `npm run soak -- 30` gives each house so many seconds.
 */
const SHAPES: readonly Shape[] = [
  { store: 'disk', processes: 1 },
  { store: 'disk', processes: 3 },
  { store: 'bucket', processes: 1 },
  { store: 'bucket', processes: 3 },
];
const SECONDS = Number(process.argv[2] ?? 100);
const PASSWORD = 'reeds-and-water';
const OUTSIDE_PAGE = 'http://anysite.localhost:4568/page/plain';

interface Row extends Found {
  readonly shape: Shape;
  readonly kills: number;
  readonly done: Acknowledged;
}

async function soak(shape: Shape): Promise<Row> {
  const world = new World(shape, await mkdtemp(join(tmpdir(), 'placard-soak-')));
  await world.begin();
  await furnish(world);
  await world.startPlacard();
  const done: Acknowledged = {
    uploads: new Map(),
    pages: new Map(),
    labels: new Map(),
    jobs: new Set(),
    begun: new Set(),
    faults: [],
  };
  const until = Date.now() + SECONDS * 1000;
  let asked = 0;
  const hands: Hands = {
    // As behind a balancer: each question to the next server.
    origin: () => `http://localhost:${world.ports[asked++ % world.ports.length]}`,
    cookie: await signIn(world),
    goesOn: () => Date.now() < until,
    onFault: (words) => done.faults.push(words),
  };
  const killing = kill(world, until);
  const working = Promise.all([
    uploader(hands, done),
    uploader(hands, done),
    saver(hands, done, 'Mara'),
    saver(hands, done, 'Piet'),
    labeller(hands, done, 'Mara'),
    labeller(hands, done, 'Piet'),
    runner(hands, done),
    gatherer(hands, done, OUTSIDE_PAGE),
    packer(hands, done, 'Mara'),
  ]);
  const kills = await killing;
  await working;
  await quiet(world);
  const left = await world.endPlacard();
  const found = await auditHouse(world, done, left);
  await world.end();
  process.stdout.write(
    `${nameOf(shape)}: ${kills} kills, ${done.uploads.size} pieces, ${sum(done.pages)} saves, ${sum(done.labels)} label edits, ${done.jobs.size} jobs\n`,
  );
  return { shape, kills, done, ...found };
}

/** One database that is a demo's, so that the world outside stands in; nothing hangs in it. */
async function furnish(world: World): Promise<void> {
  const context = await openContext(readConfig({ ...world.env, PLACARD_DEMO: '0' }));
  const passwordHash = await hashPassword(PASSWORD);
  await context.db.insert(people).values({
    id: 'mara',
    name: 'Mara Oduya',
    role: 'editor',
    email: 'mara@saltmere.example',
    passwordHash,
    isDemo: true,
  });
  await context.db.insert(targets).values({ id: 'reserve', rules: PLAIN_RULES });
  const now = new Date().toISOString();
  await context.db.insert(settings).values([
    { name: 'demo', value: now },
    { name: 'demo-house', value: now },
  ]);
  await closeContext(context);
}

async function signIn(world: World): Promise<string> {
  const answer = await fetch(`http://localhost:${world.ports[0]}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: 'mara@saltmere.example', password: PASSWORD }),
  });
  await answer.text();
  if (!answer.ok) throw new Error(`Nobody could sign in: ${answer.status}`);
  return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}

/** Kills one part after the other and starts it again; answers how often. */
async function kill(world: World, until: number): Promise<number> {
  let kills = 0;
  while (Date.now() < until) {
    await new Promise((resolve) => setTimeout(resolve, 600 + Math.random() * 2600));
    const parts = [...world.placard(), 'database'] as const;
    const part = parts[Math.floor(Math.random() * parts.length)];
    if (part === undefined) continue;
    await world.kill(part);
    kills += 1;
    await world.restart(part);
  }
  // One that was killed as it began without its database is started once more.
  for (const part of world.placard()) {
    await world.kill(part);
    await world.restart(part);
  }
  return kills;
}

/** Until no job waits or runs any more, or as long as one could need to be taken over. */
async function quiet(world: World): Promise<void> {
  const context = await openContext(readConfig({ ...world.env, PLACARD_DEMO: '0' }));
  for (const until = Date.now() + 60_000; Date.now() < until; ) {
    const open = await context.db
      .select({ id: jobs.id })
      .from(jobs)
      .where(inArray(jobs.state, ['waiting', 'running']));
    if (open.length === 0) break;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  await closeContext(context);
}

const sum = (map: ReadonlyMap<string, { readonly saves: number }>) =>
  [...map.values()].reduce((total, { saves }) => total + saves, 0);

const nameOf = ({ store, processes }: Shape) =>
  `${store}, ${processes === 1 ? 'one process' : 'three processes'}`;

function say(all: readonly Row[]): void {
  const line = (...cells: readonly (string | number)[]) =>
    process.stdout.write(`${cells.map((cell, at) => String(cell).padEnd(at === 0 ? 26 : 12)).join('')}\n`);
  process.stdout.write('\n');
  line('', 'kills', 'lost', 'doubled', 'stuck', 'left lying', 'faults');
  for (const { shape, kills, done, ...found } of all)
    line(
      nameOf(shape),
      kills,
      found.lost.length,
      found.doubled.length,
      found.stuck.length,
      found.leftLying.length,
      done.faults.length,
    );
  for (const row of all)
    for (const list of [row.lost, row.doubled, row.stuck, row.leftLying, row.done.faults])
      for (const one of list.slice(0, 10)) process.stdout.write(`  ${nameOf(row.shape)}: ${one}\n`);
}

const rows: Row[] = [];
for (const shape of SHAPES) rows.push(await soak(shape));
say(rows);
process.exit(
  rows.every(({ lost, doubled, stuck, leftLying, done }) =>
    [lost, doubled, stuck, leftLying, done.faults].every((list) => list.length === 0),
  )
    ? 0
    : 1,
);
