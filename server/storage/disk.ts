import { randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { copyFile, link, mkdir, open, readFile, rename, rm, stat } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { assertSafeKey, type Storage } from './storage.ts';

/** Files in a folder. Each is written under a temporary name, synced and renamed, so it is whole or not there. */
export function diskStorage(folder: string): Storage {
  const pathOf = (key: string) => {
    assertSafeKey(key);
    return join(folder, key);
  };
  const place = async (key: string, write: (temporary: string) => Promise<void>) => {
    const path = pathOf(key);
    const temporary = `${path}.${randomUUID()}.part`;
    await mkdir(dirname(path), { recursive: true });
    try {
      await write(temporary);
      await sync(temporary);
      await rename(temporary, path);
    } catch (error) {
      await rm(temporary, { force: true });
      throw error;
    }
  };
  return {
    put: (key, bytes) => place(key, (temporary) => writeWhole(temporary, bytes)),
    take: (key, from) => place(key, (temporary) => linkOrCopy(from, temporary)),
    read: (key) => readFile(pathOf(key)),
    stream: async (key) => createReadStream(pathOf(key)),
    has: async (key) => exists(pathOf(key)),
    remove: (key) => rm(pathOf(key), { force: true }),
    withFile: (key, use) => use(pathOf(key)),
  };
}

async function writeWhole(path: string, bytes: Uint8Array): Promise<void> {
  const file = await open(path, 'wx');
  try {
    await file.writeFile(bytes);
  } finally {
    await file.close();
  }
}

async function sync(path: string): Promise<void> {
  const file = await open(path, 'r');
  try {
    await file.sync();
  } finally {
    await file.close();
  }
}

/** The file is left where it is: should the row that names it not be written, it can be taken again. */
async function linkOrCopy(from: string, to: string): Promise<void> {
  try {
    await link(from, to);
  } catch (error) {
    const code = error instanceof Error && 'code' in error ? error.code : undefined;
    if (code !== 'EXDEV' && code !== 'EPERM' && code !== 'ENOTSUP') throw error;
    await copyFile(from, to);
  }
}

async function exists(path: string): Promise<boolean> {
  try {
    await stat(path);
    return true;
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return false;
    throw error;
  }
}
