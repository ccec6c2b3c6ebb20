import { createHash } from 'node:crypto';
import { open, readdir, readFile, rename, stat, symlink, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { assets, cuts, held, provenance, uploads } from '../db/schema.ts';
import { arrivedOf, detailOf, startTestServer, type TestServer, type Who } from '../testing.ts';
import { uploadLocker } from './upload-lock.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer('uploads', {
    env: { PLACARD_UPLOADS_EACH: '20', PLACARD_UPLOADS_EACH_MB: '1' },
  });
});
afterAll(() => server.close());

let shade = 0;
function picture(): Promise<Buffer> {
  shade += 1;
  const background = { r: shade % 256, g: 90, b: (shade * 7) % 256 };
  return sharp({ create: { width: 320, height: 200, channels: 3, background } })
    .jpeg()
    .toBuffer();
}

const tus = { 'tus-resumable': '1.0.0' };
const take = (uploadId: string, as: Who = 'mara') =>
  server.ask('/api/arrivals', { as, method: 'POST', body: { uploadId } });
const begin = (bytes: number, as: Who = 'joss') =>
  server.ask('/api/uploads', { as, method: 'POST', headers: { ...tus, 'upload-length': String(bytes) } });

describe('an upload', () => {
  it('is nobody else’s: to be read, asked after, gone on with, ended or taken in', async () => {
    const id = await server.upload(await picture(), 'mine.jpg', 'mara');
    const path = `/api/uploads/${id}`;
    for (const method of ['HEAD', 'PATCH', 'DELETE'] as const)
      expect((await server.ask(path, { as: 'joss', method, headers: tus })).status).toBe(404);
    expect((await take(id, 'joss')).status).toBe(404);
    expect((await server.ask(path, { as: 'mara', method: 'HEAD', headers: tus })).status).toBe(200);
    expect((await take(id)).status).toBe(200);
  });

  it('is never handed out again, not even to whoever sent it', async () => {
    const page = Buffer.from('<script>alert(1)</script>');
    const id = await server.upload(page, 'page.html', 'joss');
    for (const as of ['mara', 'joss'] as const)
      expect((await server.ask(`/api/uploads/${id}`, { as })).status).toBe(404);
    await take(id, 'joss');
  });

  it('is told how large it may be before it begins, and refused in a sentence over that', async () => {
    const { headers } = await server.ask('/api/uploads', { method: 'OPTIONS', headers: tus });
    const limit = server.context.config.uploadLimitBytes;
    expect(headers.get('tus-max-size')).toBe(String(limit));
    const over = await begin(limit + 1);
    expect(over.status).toBe(413);
    expect(String(over.body)).toContain('which is the most that is taken');
  });

  it('says how large it is, and is one of so many and so much for each person', async () => {
    expect(
      (await server.ask('/api/uploads', { method: 'POST', headers: { ...tus, 'upload-defer-length': '1' } }))
        .status,
    ).toBe(400);
    const large = await begin(2_000_000);
    expect(large.status).toBe(429);
    expect(String(large.body)).toContain('which is the most for one person');
    const begun = await Promise.all(Array.from({ length: 24 }, () => begin(1000)));
    expect(begun.filter(({ status }) => status === 201)).toHaveLength(20);
    expect(begun.filter(({ status }) => status === 429)).toHaveLength(4);
    expect((await begin(1000, 'piet')).status).toBe(201);
    const [first] = begun.filter(({ status }) => status === 201);
    await server.ask(first?.headers.get('location') ?? '', { as: 'joss', method: 'DELETE', headers: tus });
    expect((await begin(1000)).status).toBe(201);
    for (const answer of begun)
      if (answer.status === 201)
        await server.ask(answer.headers.get('location') ?? '', {
          as: 'joss',
          method: 'DELETE',
          headers: tus,
        });
  });

  it('that finds no room says so in a sentence, and goes on from where it stopped once there is some', async () => {
    const begun = await begin(1000);
    const path = begun.headers.get('location') ?? '';
    const file = join(server.context.config.dataFolder, 'uploads', path.split('/').at(-1) ?? '');
    const send = () =>
      server.ask(path, {
        as: 'joss',
        method: 'PATCH',
        headers: { ...tus, 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
        body: new Uint8Array(1000),
      });
    await rename(file, `${file}-kept`);
    await symlink('/dev/full', file);
    const refused = await send();
    expect(refused.status).toBe(507);
    expect(String(refused.body)).toMatch(/^There is no room left to store files\./);
    await rename(`${file}-kept`, file);
    expect((await send()).status).toBe(204);
    await server.ask(path, { as: 'joss', method: 'DELETE', headers: tus });
  });

  it('taken in by many at once is one piece, and each is answered the same', async () => {
    const id = await server.upload(await picture(), 'once.jpg');
    const answers = await Promise.all(Array.from({ length: 8 }, () => take(id)));
    expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]));
    expect(new Set(answers.map((answer) => arrivedOf(answer).asset.id)).size).toBe(1);
    expect(answers.filter((answer) => arrivedOf(answer).isNew)).toHaveLength(8);
  });

  it('is locked across processes, and given up to who asks for it', async () => {
    const id = await server.upload(await picture(), 'locked.jpg');
    const [one, other] = [uploadLocker(server.context), uploadLocker(server.context)].map((locker) =>
      locker.newLock(id),
    );
    let isAsked = 0;
    const never = new AbortController().signal;
    await one?.lock(never, () => {
      isAsked += 1;
      void one?.unlock();
    });
    await other?.lock(never, () => undefined);
    expect(isAsked).toBe(1);
    await other?.unlock();
    await take(id);
  });
});

describe('one name that many want', () => {
  it('is given to one, and each of the others gets the next free', async () => {
    const files = await Promise.all(Array.from({ length: 12 }, picture));
    const who: readonly Who[] = ['mara', 'piet', 'sunniva'];
    const taken = await Promise.all(
      files.map((bytes, at) => server.handIn(bytes, 'evening tide.jpg', who[at % 3] ?? 'mara')),
    );
    const stems = taken.map((answer) => arrivedOf(answer).asset.stem).sort();
    expect(new Set(stems).size).toBe(12);
    expect(stems).toContain('evening-tide');
  });
});

describe('the very same file', () => {
  it('handed in by two at the same moment is one piece, with where both came from and no half rows', async () => {
    const bytes = await picture();
    const [one, other] = await Promise.all([
      server.handIn(bytes, 'same.jpg', 'mara'),
      server.handIn(bytes, 'same too.jpg', 'piet'),
    ]);
    const { id } = arrivedOf(one).asset;
    expect(arrivedOf(other).asset.id).toBe(id);
    const came = await server.context.db.select().from(provenance).where(eq(provenance.assetId, id));
    expect(came.map(({ personId }) => personId).sort()).toEqual(['mara', 'piet']);
    const all = await server.context.db.select({ id: assets.id }).from(assets);
    const made = await server.context.db.selectDistinct({ id: cuts.assetId }).from(cuts);
    const known = new Set(all.map((row) => row.id));
    expect(made.every((row) => known.has(row.id))).toBe(true);
  });

  it('of a piece that was thrown away comes back by who may do that, and by nobody else', async () => {
    const bytes = await picture();
    const { asset } = arrivedOf(await server.handIn(bytes, 'thrown.jpg', 'mara'));
    await server.ask(`/api/assets/${asset.id}`, { method: 'DELETE' });
    const refused = await server.handIn(bytes, 'thrown.jpg', 'joss');
    expect(refused.status).toBe(403);
    expect(detailOf(refused)).toContain('was thrown away');
    const [row] = await server.context.db.select().from(held).where(eq(held.id, asset.id));
    expect(row?.deletedAt).not.toBeNull();
    expect(arrivedOf(await server.handIn(bytes, 'thrown.jpg', 'piet')).asset.deletedAt).toBeNull();
  });
});

describe('what is stored', () => {
  it('is a copy: whoever still writes to the upload changes nothing of it', async () => {
    const bytes = await picture();
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const path = join(server.folder, 'late-writer');
    await writeFile(path, bytes);
    const writer = await open(path, 'r+');
    const key = `originals/${sha256.slice(0, 2)}/${sha256}`;
    await server.context.storage.take(key, path, sha256);
    await writer.write(Buffer.from('late'), 0, 4, 20);
    await writer.close();
    expect(
      createHash('sha256')
        .update(await server.context.storage.read(key))
        .digest('hex'),
    ).toBe(sha256);
    await expect(server.context.storage.take(key, path, sha256)).rejects.toThrow('has other bytes');
    expect(
      createHash('sha256')
        .update(await server.context.storage.read(key))
        .digest('hex'),
    ).toBe(sha256);
  });

  it('is open to whoever runs Placard alone', async () => {
    const before = process.umask(0o077);
    const { asset } = arrivedOf(await server.handIn(await picture(), 'private.jpg'));
    process.umask(before);
    const [row] = await server.context.db.select().from(held).where(eq(held.id, asset.id));
    const path = join(server.folder, 'files', 'originals', row?.sha256.slice(0, 2) ?? '', row?.sha256 ?? '');
    expect((await stat(path)).mode & 0o077).toBe(0);
    expect((await readFile(path)).length).toBe(row?.bytes);
  });

  it('leaves nothing behind in the folder of uploads', async () => {
    const begun = await server.context.db.select({ id: uploads.id }).from(uploads);
    const names = await readdir(join(server.folder, 'uploads'));
    const known = new Set(begun.flatMap(({ id }) => [id, `${id}.json`]));
    expect(names.filter((name) => !known.has(name))).toEqual([]);
  });
});
