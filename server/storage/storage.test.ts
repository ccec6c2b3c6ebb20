import { execFileSync } from 'node:child_process';
import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bucketStorage } from './bucket.ts';
import { diskStorage } from './disk.ts';
import { StorageGone } from './failures.ts';
import { assertSafeKey, bundleKey, cutKey, originalKey } from './storage.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'placard-storage-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

async function filesBelow(path: string): Promise<string[]> {
  const entries = await readdir(path, { withFileTypes: true, recursive: true });
  return entries.filter((entry) => entry.isFile()).map((entry) => entry.name);
}

/** A bucket in memory that speaks as much of the S3 protocol as storage uses. */
async function memoryBucket(): Promise<{ readonly endpoint: string; readonly close: () => void }> {
  const objects = new Map<string, Buffer>();
  const server = createServer(async (request, response) => {
    const path = new URL(request.url ?? '/', 'http://bucket').pathname;
    const parts: Buffer[] = [];
    for await (const part of request) parts.push(Buffer.from(part));
    const known = objects.get(path);
    if (request.method === 'PUT') {
      objects.set(path, Buffer.concat(parts));
      response.end();
    } else if (request.method === 'DELETE') {
      objects.delete(path);
      response.writeHead(204).end();
    } else if (!known) response.writeHead(404).end();
    else
      response
        .writeHead(200, { 'content-length': known.length })
        .end(request.method === 'HEAD' ? undefined : known);
  }).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const address = server.address();
  const port = address && typeof address === 'object' ? address.port : 0;
  return { endpoint: `http://127.0.0.1:${port}`, close: () => server.close() };
}

describe('storage in a bucket', () => {
  it('gives back what it was given, whole, by every way', async () => {
    const bucket = await memoryBucket();
    const cache = join(folder, 'cache');
    const storage = bucketStorage(
      { bucket: 'marsh', endpoint: bucket.endpoint, region: 'main', key: 'k', secret: 's' },
      cache,
    );
    const key = originalKey('cd'.repeat(32));
    expect(await storage.has(key)).toBe(false);
    const bytes = Buffer.alloc(300_000, 'reeds');
    await storage.put(key, bytes);
    expect(await storage.has(key)).toBe(true);
    expect((await storage.read(key)).equals(bytes)).toBe(true);
    expect((await storage.withFile(key, (path) => readFile(path))).equals(bytes)).toBe(true);
    const file = join(folder, 'incoming');
    await writeFile(file, 'water');
    await storage.take(bundleKey('one'), file);
    expect(String(await storage.read(bundleKey('one')))).toBe('water');
    expect(String(await readFile(file))).toBe('water');
    await storage.remove(key);
    expect(await storage.has(key)).toBe(false);
    await expect(storage.read('../secret')).rejects.toThrow(RangeError);
    bucket.close();
  });

  it('that does not answer is told as that, and not as the database', async () => {
    const { endpoint, close } = await memoryBucket();
    close();
    await new Promise((resolve) => setTimeout(resolve, 50));
    const storage = bucketStorage(
      { bucket: 'marsh', endpoint, region: 'main', key: 'k', secret: 's' },
      join(folder, 'cache-gone'),
    );
    await expect(storage.has(originalKey('ee'.repeat(32)))).rejects.toThrow(StorageGone);
    await expect(storage.put(bundleKey('two'), Buffer.from('x'))).rejects.toThrow(StorageGone);
  }, 60_000);
});

describe('storage on disk', () => {
  it('lists what is stored, and clears what was left half-written', async () => {
    const own = join(folder, 'listed');
    const storage = diskStorage(own);
    await storage.put(originalKey('aa'.repeat(32)), Buffer.from('one'));
    await storage.put(cutKey('aa'.repeat(32), 'whole', 3, 'webp', 80), Buffer.from('two'));
    await writeFile(join(own, 'originals', 'half.0.part'), 'half');
    const keys: string[] = [];
    for await (const { key } of storage.list('originals')) keys.push(key);
    expect(keys).toEqual([originalKey('aa'.repeat(32))]);
    expect(await storage.clear(new Date(Date.now() - 60_000))).toBe(0);
    expect(await storage.clear(new Date(Date.now() + 60_000))).toBe(1);
    expect(await filesBelow(join(own, 'originals'))).toEqual(['aa'.repeat(32)]);
  });

  it('gives back what it was given', async () => {
    const storage = diskStorage(folder);
    const key = originalKey('ab'.repeat(32));
    expect(await storage.has(key)).toBe(false);
    await storage.put(key, Buffer.from('reeds'));
    expect(String(await storage.read(key))).toBe('reeds');
    await storage.remove(key);
    expect(await storage.has(key)).toBe(false);
  });

  it.each(['../x/y', 'a/../b', '/etc/passwd', 'originals//x', 'originals/.hidden', 'plain', 'a/b\u0000c'])(
    'does not take %j for a key',
    (key) => {
      expect(() => assertSafeKey(key)).toThrow(RangeError);
    },
  );

  it('takes every key it makes', () => {
    for (const key of [
      originalKey('0f'.repeat(32)),
      cutKey('0f'.repeat(32), 'c1-2-3-4', 720, 'avif', 55),
      bundleKey(crypto.randomUUID()),
    ]) {
      expect(() => assertSafeKey(key)).not.toThrow();
    }
  });

  it('leaves nothing half-written when there is no room', () => {
    // A process that may write files of at most 64 kB stands for a disk that is full: the write fails in its middle.
    const script = `
      process.on('SIGXFSZ', () => {});
      const { diskStorage } = await import('./server/storage/disk.ts');
      const storage = diskStorage(process.argv[1]);
      await storage.put('cuts/small/one', Buffer.alloc(1000)).catch((error) => console.log('small', error.code));
      await storage.put('cuts/large/two', Buffer.alloc(500_000)).catch((error) => console.log(error.code));
    `;
    const room = join(folder, 'full');
    const tsx = join(process.cwd(), 'node_modules/.bin/tsx');
    const command = `ulimit -f 64; exec "${tsx}" --input-type=module --eval "$0" "$1"`;
    const said = execFileSync('bash', ['-c', command, script, room], {
      encoding: 'utf8',
      env: { ...process.env, TSX_DISABLE_CACHE: '1' },
    });
    expect(said.trim()).toBe('EFBIG');
  });

  it('and keeps what was whole', async () => {
    expect(await filesBelow(join(folder, 'full'))).toEqual(['one']);
  });
});
