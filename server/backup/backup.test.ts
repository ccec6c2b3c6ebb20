import { createHash } from 'node:crypto';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { readConfig } from '../config.ts';
import { closeContext, openContext } from '../context.ts';
import { films, held, pages, people } from '../db/schema.ts';
import { MAKE_FILM } from '../films/kinds.ts';
import { allMade, madeKey } from '../films/made-store.ts';
import { filmOf } from '../films/testing-films.ts';
import { workOne } from '../jobs/worker.ts';
import { originalKey } from '../storage/storage.ts';
import { arrivedOf, startTestServer, type TestServer } from '../testing.ts';
import { backUp } from './backup.ts';
import { restore } from './restore.ts';

let server: TestServer;
let folder: string;
beforeAll(async () => {
  server = await startTestServer('backup');
  folder = await mkdtemp(join(tmpdir(), 'placard-backup-'));
});
afterAll(async () => {
  await server.close();
  await rm(folder, { recursive: true, force: true });
});

async function emptyHouse(name: string) {
  const databaseServer = process.env.TEST_DATABASE_SERVER ?? '';
  const connection = await createConnection(databaseServer);
  await connection.query(`DROP DATABASE IF EXISTS ${name}`);
  await connection.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4`);
  await connection.end();
  return readConfig({
    DATABASE_URL: `${databaseServer}/${name}`,
    PLACARD_DATA: join(folder, name),
    PLACARD_DEMO: '0',
  });
}

async function handIn(shade: number) {
  const bytes = await sharp({
    create: { width: 300, height: 200, channels: 3, background: { r: shade, g: 1, b: 1 } },
  })
    .jpeg()
    .toBuffer();
  return arrivedOf(await server.handIn(bytes, `heron ${shade}.jpg`)).asset;
}

it('a house is brought back whole from its backup, into an empty place and into no other', async () => {
  const first = await handIn(40);
  await server.ask('/api/pages', {
    method: 'POST',
    body: { title: 'The tide’s “turn”', targetId: 'reserve', wants: [] },
  });
  const into = join(folder, 'kept');
  expect(await backUp(server.context, into, new Date())).toMatchObject({ files: 1 });
  // The same folder the next day: only what is new is copied.
  await handIn(90);
  const now = new Date('2026-11-28T06:00:00Z');
  expect(await backUp(server.context, into, now)).toMatchObject({ files: 1 });

  const config = await emptyHouse('placard_restored');
  expect(await restore(config, into)).toEqual({ at: now.toISOString(), files: 2, pieces: 2, broken: [] });
  const context = await openContext(config);
  const [original, copy] = [server.context.db, context.db];
  for (const table of [people, pages, held])
    expect(await copy.select().from(table)).toEqual(await original.select().from(table));
  for (const { sha256 } of await copy.select().from(held)) {
    const bytes = await context.storage.read(originalKey(sha256));
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(sha256);
  }
  expect(context.secret).toBe(server.context.secret);
  expect(first.stem).toBe('heron-40');
  await closeContext(context);

  await expect(restore(config, into)).rejects.toThrow('This database is not empty');
  await expect(restore(await emptyHouse('placard_nothing'), join(folder, 'nowhere'))).rejects.toThrow(
    'holds no backup that came to its end',
  );
}, 120_000);

it('a film that was made for the web is made again where only its file was brought back', async () => {
  const film = await filmOf({ name: 'eels.mp4', seconds: 1, title: 'Eels' });
  await server.handIn(film, 'eels.mp4');
  await workOne(server.context, [MAKE_FILM]);
  const into = join(folder, 'with-film');
  await backUp(server.context, into, new Date());
  const config = await emptyHouse('placard_with_film');
  expect((await restore(config, into)).broken).toEqual([]);
  const context = await openContext(config);
  try {
    const row = async () => (await context.db.select().from(films))[0];
    expect(allMade((await row()) ?? {})).toEqual([]);
    await workOne(context, [MAKE_FILM]);
    const made = allMade((await row()) ?? {});
    expect(made.map(({ format }) => format)).toEqual(['mp4', 'webm']);
    const [first] = made;
    const key = first ? madeKey((await row())?.sha256 ?? '', first) : '';
    expect(await context.storage.has(key)).toBe(true);
  } finally {
    await closeContext(context);
  }
}, 120_000);
