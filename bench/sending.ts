import { randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import pLimit from 'p-limit';
import { NOT_SENT } from '#core/deliver/sending.ts';
import { newPlacement } from '#core/page/blocks/placement/schema.ts';
import { comparePages } from '#core/page/compare.ts';
import { emptyPage, type PageDoc } from '#core/page/model.ts';
import { PLAIN_RULES } from '#core/page/testing.ts';
import { EMPTY_LABEL } from '#core/rights/label.ts';
import { assets, deliveries, pages, people, sentFiles, targets } from '../server/db/schema.ts';
import { FROM_OWN_MACHINE } from '../server/gather/incoming.ts';
import { takeIn } from '../server/gather/take-in.ts';
import { workOne } from '../server/jobs/worker.ts';
import { indexPlacements } from '../server/pages/store.ts';
import { presentPerson } from '../server/people/guard.ts';
import { keepCredential } from '../server/sending/credentials.ts';
import { orderDelivery } from '../server/sending/deliveries.ts';
import { SEND } from '../server/sending/send.ts';
import { freePort, readersOf, webdavHost } from '../server/sending/testing-hosts.ts';
import { median, millis, say, times } from './measure.ts';
import { type BenchWorld, grainedOriginals, openWorld } from './world.ts';

const PICTURES = 30;
const SIZE = { width: 1600, height: 1067 };
const LOGIN = { user: 'bench', password: 'bench' };
/** As many as are sent beside each other (`server/sending/send.ts`). */
const AT_ONCE = 3;
const RUNS = 5;
const PAGE_ID = 'bench-page';

/**
 * A page of 30 pictures that are made already, sent to a folder behind WebDAV, against the bare upload of the same files; a page
 * that somebody else made, read; two versions of a page, compared.
 */
export async function benchSending(): Promise<void> {
  comparing();
  const [davPort, readersPort] = [await freePort(), await freePort()];
  const world = await openWorld({ PLACARD_NEAR_HOSTS: `127.0.0.1:${davPort} 127.0.0.1:${readersPort}` });
  await reading(world);
  const site = join(world.folder, 'site');
  const bare = join(world.folder, 'bare');
  await mkdir(site);
  await mkdir(bare);
  const hosts = [await webdavHost(world.folder, davPort, LOGIN), await readersOf(site, readersPort)];
  try {
    await seed(world, `http://127.0.0.1:${davPort}/site/`, `http://127.0.0.1:${readersPort}/`);
    await sendOnce(world);
    const files = await allFiles(site);
    const uploads = await median(() => upload(files, `http://127.0.0.1:${davPort}/bare/`), RUNS);
    const ours = await median(() => sendOnce(world), RUNS);
    const bytes = files.reduce((sum, file) => sum + file.bytes.length, 0);
    say(
      `a page of ${PICTURES} pictures sent, ${files.length} files, ${(bytes / 1e6).toFixed(1)} MB (aim: at most 1.2)`,
      `${times(ours, uploads)} the bare upload, ${millis(ours)}`,
    );
  } finally {
    for (const host of hosts) await host.end();
    await world.close();
  }
}

/** Sends it as if the target had nothing of it; what was made of its pictures stays. Answers once it is out and read back. */
async function sendOnce({ context }: BenchWorld): Promise<void> {
  await context.db.delete(sentFiles);
  await context.db.delete(deliveries);
  const [row] = await context.db.select().from(people).where(eq(people.id, 'bench'));
  if (!row) throw new Error('Nobody sends.');
  const { id } = await orderDelivery(context, PAGE_ID, randomUUID(), presentPerson(row), new Date());
  await workOne(context, [SEND]);
  const [sent] = await context.db.select().from(deliveries).where(eq(deliveries.id, id));
  if (sent?.state !== 'out') throw new Error(`It is not out: ${sent?.words}`);
}

interface SentFile {
  readonly name: string;
  readonly bytes: Buffer;
}

async function allFiles(folder: string): Promise<readonly SentFile[]> {
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  return Promise.all(
    entries
      .filter((entry) => entry.isFile())
      .map(async (entry) => ({
        name: `${randomUUID()}-${entry.name}`,
        bytes: await readFile(join(entry.parentPath, entry.name)),
      })),
  );
}

async function upload(files: readonly SentFile[], to: string): Promise<void> {
  const inTurn = pLimit(AT_ONCE);
  const authorization = `Basic ${Buffer.from(`${LOGIN.user}:${LOGIN.password}`).toString('base64')}`;
  await Promise.all(
    files.map(({ name, bytes }) =>
      inTurn(async () => {
        const answer = await fetch(`${to}${name}`, {
          method: 'PUT',
          headers: { authorization },
          body: new Uint8Array(bytes),
        });
        if (!answer.ok) throw new Error(`${name} was not taken: ${answer.status}`);
        await answer.arrayBuffer();
      }),
    ),
  );
}

async function seed({ context, folder }: BenchWorld, address: string, publicAddress: string): Promise<void> {
  const { db } = context;
  const sending = { ...NOT_SENT, by: 'webdav' as const, address, user: LOGIN.user, publicAddress };
  const rules = { ...PLAIN_RULES, siteAddress: publicAddress, sending, severities: {} };
  await db.insert(targets).values({ id: 'reserve', rules });
  const owner = { id: 'bench', name: 'Bench', email: 'bench@saltmere.example', role: 'site-owner' };
  await db.insert(people).values({ ...owner, passwordHash: '' });
  const [row] = await db.select().from(people);
  if (row) await keepCredential(context, 'reserve', LOGIN.password, presentPerson(row), new Date());
  const ids: string[] = [];
  for (const [number, path] of (await grainedOriginals(folder, PICTURES, SIZE)).entries()) {
    const incoming = { path, name: `IMG_${number}.JPG`, personId: 'bench', folder: '', pageId: null };
    const taken = await takeIn(context, { ...incoming, origin: FROM_OWN_MACHINE }, new Date());
    ids.push(taken.row.id);
    const label = {
      ...EMPTY_LABEL,
      title: `Reed ${number}`,
      licence: 'own' as const,
      alt: { kind: 'text' as const, text: 'Reed at dawn.' },
    };
    await db.update(assets).set({ label, licence: 'own' }).where(eq(assets.id, taken.row.id));
  }
  const doc: PageDoc = {
    ...emptyPage('Thirty reeds'),
    tray: ids,
    blocks: ids.map((id, at) => ({ type: 'placement', attrs: newPlacement(`p${at}`, id) })),
  };
  const now = new Date();
  const page = { id: PAGE_ID, targetId: 'reserve', title: doc.title, doc, version: 1 };
  await db.insert(pages).values({ ...page, createdAt: now, updatedAt: now, updatedBy: 'bench' });
  await indexPlacements(db, PAGE_ID, doc);
}

/** A page of 200 kB as old sites have them, read to its end as a job does it, without what it downloads. */
async function reading({ context }: BenchWorld): Promise<void> {
  const part =
    '<table width="600"><tr><td><font size="4"><b>What was counted</b></font><br><br><img src="eel.jpg" width="300"><p align="center">Eels cannot jump. <a href="tide.htm">click here</a></p></td></tr></table>';
  const html = `<html><head><title>Eels</title></head><body>${part.repeat(Math.ceil(200_000 / part.length))}</body></html>`;
  const source = {
    html,
    css: '',
    base: 'https://saltmere.example/old/',
    hosts: { entries: [], decisions: [] },
    language: 'en-GB',
  };
  const ours = await median(() => context.texts.inherited(source), RUNS);
  say('an inherited page of 200 kB read (aim: under 2 s)', millis(ours));
}

/** Two states of a page of 2,000 blocks, a tenth of them changed, moved, added or gone. */
function comparing(): void {
  const block = (at: number, text: string): PageDoc['blocks'][number] => ({
    type: 'paragraph',
    attrs: { id: `b${at}` },
    content: [{ type: 'text', text }],
  });
  const before = Array.from({ length: 2000 }, (_, at) =>
    block(at, `The reed of bed ${at} is cut in January.`),
  );
  const after = before
    .flatMap((one, at) => (at % 40 === 0 ? [] : at % 40 === 1 ? [one, block(5000 + at, 'New.')] : [one]))
    .map((one, at) => (at % 30 === 0 ? block(Number(one.attrs.id.slice(1)), 'Reworded since.') : one));
  const moved = [...after.slice(1500), ...after.slice(0, 1500)];
  const page = (blocks: PageDoc['blocks']): PageDoc => ({ ...emptyPage('Reed'), blocks });
  const started = performance.now();
  const found = comparePages(page(before), page(moved)).length;
  say(
    `two versions of 2,000 blocks compared, ${found} differences (aim: under 200 ms)`,
    millis(performance.now() - started),
  );
}
