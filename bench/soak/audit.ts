import { createHash } from 'node:crypto';
import { readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { count, eq, inArray, isNotNull, or } from 'drizzle-orm';
import { fromStored, STORED } from '#core/stored.ts';
import { readConfig } from '../../server/config.ts';
import { closeContext, openContext } from '../../server/context.ts';
import { held, jobs, pages, removals, uploads } from '../../server/db/schema.ts';
import { originalKey } from '../../server/storage/storage.ts';
import { tidy } from '../../server/tidy/tidy.ts';
import type { Acknowledged } from './hands.ts';
import type { World } from './world.ts';

/** What a house that was killed again and again has lost, done twice, not come to the end of, or left lying. */
export interface Found {
  readonly lost: readonly string[];
  readonly doubled: readonly string[];
  readonly stuck: readonly string[];
  readonly leftLying: readonly string[];
}

/** Holds what was acknowledged against what is there, from outside of all processes of the house. */
export async function auditHouse(world: World, done: Acknowledged, processesLeft: number): Promise<Found> {
  const context = await openContext(
    readConfig({
      ...world.env,
      PLACARD_DEMO: '0',
      // At once, what would be tidied away after its days.
      PLACARD_KEEP_DAYS: 'uploads=0 strays=0',
    }),
  );
  const { db, storage, config } = context;
  const [lost, doubled, stuck, leftLying]: [string[], string[], string[], string[]] = [[], [], [], []];

  for (const [id, sha256] of done.uploads) {
    const [row] = await db.select().from(held).where(eq(held.id, id));
    if (row?.sha256 !== sha256) lost.push(`piece ${id} that was handed in`);
    else if (
      createHash('sha256')
        .update(await storage.read(originalKey(sha256)))
        .digest('hex') !== sha256
    )
      lost.push(`the bytes of ${id}`);
  }
  for (const [id, { words, saves }] of done.pages) {
    const [row] = await db.select().from(pages).where(eq(pages.id, id));
    const doc = JSON.stringify(fromStored(STORED.page, row?.doc));
    // The save that was under way when the soak ended may have been kept without its answer.
    const next = words.replace(String(saves), String(saves + 1));
    if (!doc.includes(words) && !doc.includes(next)) lost.push(`save ${saves} of page ${id}`);
    if (Number(row?.version) > saves + 2) doubled.push(`saves of page ${id}: ${row?.version} for ${saves}`);
  }
  for (const [id, { title, saves }] of done.labels) {
    const [row] = await db.select().from(held).where(eq(held.id, id));
    const next = title.replace(String(saves), String(saves + 1));
    if (row?.title !== title && row?.title !== next) lost.push(`edit ${saves} of the label of ${id}`);
    // A run may have moved it meanwhile; nothing else has written to it.
  }
  for (const title of done.begun) {
    const [row] = await db.select({ count: count() }).from(pages).where(eq(pages.title, title));
    if ((row?.count ?? 0) > 1) doubled.push(`the page “${title}”`);
    if ((row?.count ?? 0) < 1) lost.push(`the page “${title}”`);
  }
  const all = await db.select().from(jobs);
  for (const id of done.jobs) if (!all.some((job) => job.id === id)) lost.push(`job ${id}`);
  if (all.length > done.jobs.size + JOBS_WITHOUT_ANSWER)
    doubled.push(`jobs: ${all.length} for ${done.jobs.size} that were ordered`);
  for (const { id, kind, state, words } of all) {
    if (state === 'waiting' || state === 'running') stuck.push(`${kind} ${id} is ${state}`);
    if (state === 'failed') lost.push(`${kind} ${id}: ${words}`);
  }
  const locked = await db.select({ id: uploads.id }).from(uploads).where(isNotNull(uploads.lockedBy));
  const late =
    locked.length > 0
      ? await stillLocked(
          db,
          locked.map(({ id }) => id),
        )
      : [];
  for (const id of late) stuck.push(`upload ${id} is locked`);

  // Twice: what the first finds is removed by the second.
  for (const again of [0, 1]) await tidy(context, new Date(Date.now() + 60_000 + again));
  const tidied = await tidy(context, new Date(Date.now() + 25 * 60 * 60_000));
  await tidy(context, new Date(Date.now() + 50 * 60 * 60_000));
  if (tidied.missing > 0) lost.push(`${tidied.missing} originals`);
  if (processesLeft > 0) leftLying.push(`${processesLeft} processes`);
  for (const name of await readdir(join(config.dataFolder, 'uploads')).catch(() => []))
    leftLying.push(`uploads/${name}`);
  for (const name of await readdir(join(config.dataFolder, 'work')).catch(() => []))
    leftLying.push(`work/${name}`);
  for await (const { key } of storage.list('originals')) {
    const [row] = await db
      .select({ id: held.id })
      .from(held)
      .where(or(eq(held.sha256, key.split('/')[2] ?? ''), eq(held.documentSha256, key.split('/')[2] ?? '')));
    if (!row) leftLying.push(key);
  }
  const [waiting] = await db.select({ count: count() }).from(removals);
  if ((waiting?.count ?? 0) > 0) leftLying.push(`${waiting?.count} removals`);
  await closeContext(context);
  return { lost, doubled, stuck, leftLying };
}

/** Orders whose answer did not come before the soak ended. */
const JOBS_WITHOUT_ANSWER = 3;

async function stillLocked(
  db: Awaited<ReturnType<typeof openContext>>['db'],
  ids: readonly string[],
): Promise<readonly string[]> {
  const rows = await db
    .select()
    .from(uploads)
    .where(inArray(uploads.id, [...ids]));
  return rows
    .filter(({ lockedUntil }) => (lockedUntil?.getTime() ?? 0) > Date.now() + 15_000)
    .map(({ id }) => id);
}
