import { randomUUID } from 'node:crypto';
import { constants, createReadStream } from 'node:fs';
import { copyFile, mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { dirname, join, relative, sep } from 'node:path';
import { FileChanged } from './failures.ts';
import { sha256Of } from './sha256.ts';
import { assertSafeKey, type Storage, type Stored } from './storage.ts';

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
      await sync(dirname(path));
    } catch (error) {
      await rm(temporary, { force: true });
      throw error;
    }
  };
  return {
    put: (key, bytes) => place(key, (temporary) => writeWhole(temporary, bytes)),
    take: (key, from, sha256) =>
      place(key, async (temporary) => {
        // Where the file system can, the copy shares its blocks with the other until either is written to.
        await copyFile(from, temporary, constants.COPYFILE_FICLONE);
        if (sha256 && (await sha256Of(temporary)) !== sha256) throw new FileChanged(key);
      }),
    read: (key) => readFile(pathOf(key)),
    stream: async (key) => createReadStream(pathOf(key)),
    has: async (key) => exists(pathOf(key)),
    remove: (key) => rm(pathOf(key), { force: true }),
    list: (below) => storedBelow(folder, join(folder, below)),
    clear: (before) => clearParts(folder, before),
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

const PART = '.part';

async function* storedBelow(folder: string, below: string): AsyncIterable<Stored> {
  for await (const path of filesBelow(below)) {
    if (path.endsWith(PART)) continue;
    const { mtime } = await stat(path);
    yield { key: relative(folder, path).split(sep).join('/'), at: mtime };
  }
}

/** Removes what a killed process left half-written below a folder; answers how many files. */
export async function clearParts(folder: string, before: Date): Promise<number> {
  let cleared = 0;
  for await (const path of filesBelow(folder)) {
    if (!path.endsWith(PART) || (await stat(path)).mtime >= before) continue;
    await rm(path, { force: true });
    cleared += 1;
  }
  return cleared;
}

async function* filesBelow(folder: string): AsyncIterable<string> {
  const entries = await readdir(folder, { withFileTypes: true }).catch(() => []);
  for (const entry of entries) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesBelow(path);
    else if (entry.isFile()) yield path;
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
