import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { diskStorage } from '../storage/disk.ts';
import type { Storage } from '../storage/storage.ts';
import { CutCache } from './cut-cache.ts';

let folder: string;
let storage: Storage;
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'placard-known-'));
  storage = diskStorage(folder);
});
afterAll(() => rm(folder, { recursive: true }));

const cut = (key: string, bytes = 3) => ({ key, bytes, mime: 'image/webp' });

describe('cuts that were sent before', () => {
  it('are found again by their address', async () => {
    await storage.put('cuts/a/one.webp', Buffer.from('one'));
    const cache = new CutCache();
    cache.remember('/cut/one', cut('cuts/a/one.webp'));
    const found = await cache.read({ storage }, '/cut/one');
    expect(found?.cut.mime).toBe('image/webp');
    expect(Buffer.from(found?.bytes ?? []).toString()).toBe('one');
    expect(await cache.read({ storage }, '/cut/other')).toBeUndefined();
  });

  it('are not known any more once their file is thrown away', async () => {
    await storage.put('cuts/a/two.webp', Buffer.from('two'));
    const cache = new CutCache();
    cache.remember('/cut/two', cut('cuts/a/two.webp'));
    await storage.remove('cuts/a/two.webp');
    expect(await cache.read({ storage }, '/cut/two')).toBeUndefined();
    await storage.put('cuts/a/two.webp', Buffer.from('two'));
    expect(await cache.read({ storage }, '/cut/two')).toBeUndefined();
  });

  it('are not held whole where they are large', async () => {
    await storage.put('cuts/a/film.webp', Buffer.from('film'));
    const cache = new CutCache();
    cache.remember('/cut/film', cut('cuts/a/film.webp', 5_000_000));
    expect(await cache.read({ storage }, '/cut/film')).toBeUndefined();
  });

  it('are forgotten, those asked for longest ago first, when there are too many', async () => {
    await storage.put('cuts/a/one.webp', Buffer.from('one'));
    const cache = new CutCache();
    for (let at = 0; at < 10_000; at += 1) cache.remember(`/cut/${at}`, cut('cuts/a/one.webp'));
    expect(await cache.read({ storage }, '/cut/0')).toBeDefined();
    cache.remember('/cut/more', cut('cuts/a/one.webp'));
    expect(await cache.read({ storage }, '/cut/0')).toBeDefined();
    expect(await cache.read({ storage }, '/cut/1')).toBeUndefined();
    expect(await cache.read({ storage }, '/cut/2')).toBeDefined();
  });

  it('are asked for anew after a moment, since the piece may have been thrown away', async () => {
    let now = 1000;
    const cache = new CutCache({ now: () => now });
    await storage.put('cuts/a/one.webp', Buffer.from('one'));
    cache.remember('/cut/one', cut('cuts/a/one.webp'));
    now += 4000;
    expect(await cache.read({ storage }, '/cut/one')).toBeDefined();
    now += 2000;
    expect(await cache.read({ storage }, '/cut/one')).toBeUndefined();
  });
});
