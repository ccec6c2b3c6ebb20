import { createWriteStream } from 'node:fs';
import { copyFile, mkdir, readdir, rename, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import type { Context } from '../context.ts';
import { runClient, schemaOf } from './client.ts';

export const DUMP = 'database.sql.gz';
export const ABOUT = 'about.json';
/**
 * What is made again from the originals is left out, but for what readers are served by its hash; what a job packed is kept only for
 * some days anyway.
 */
const FOLDERS = ['originals', 'sent'] as const;

export interface BackedUp {
  readonly files: number;
  readonly dumpBytes: number;
}

/**
 * Writes a house into a folder while people work in it: its originals, its database as of one moment, and then the
 * originals that came meanwhile. Whatever the database names is there: an original is stored before its row is written,
 * and removed only long after. Files that are there already are not copied again, so the same folder can be used each day.
 */
export async function backUp(context: Context, folder: string, now: Date): Promise<BackedUp> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  let files = await copyAll(context, folder);
  const dump = join(folder, DUMP);
  const temporary = `${dump}.part`;
  const out = createGzip();
  const written = pipeline(out, createWriteStream(temporary, { mode: 0o600 }));
  await runClient(
    'mariadb-dump',
    schemaOf(context.config.databaseUrl),
    ['--single-transaction', '--quick', '--hex-blob', '--no-tablespaces', '--skip-lock-tables'],
    { to: out },
  );
  await written;
  await rename(temporary, dump);
  files += await copyAll(context, folder);
  await writeFile(join(folder, ABOUT), JSON.stringify({ format: 1, at: now.toISOString() }));
  return { files, dumpBytes: (await stat(dump)).size };
}

async function copyAll({ storage }: Context, folder: string): Promise<number> {
  let copied = 0;
  for (const below of FOLDERS)
    for await (const { key } of storage.list(below)) {
      const path = join(folder, 'files', key);
      if (await isThere(path)) continue;
      await mkdir(dirname(path), { recursive: true });
      await storage.withFile(key, (from) => copyFile(from, `${path}.part`));
      await rename(`${path}.part`, path);
      copied += 1;
    }
  return copied;
}

async function isThere(path: string): Promise<boolean> {
  return stat(path).then(
    () => true,
    () => false,
  );
}

/** Every file of a backup, as its key. */
export async function* filesOf(folder: string, key = ''): AsyncIterable<string> {
  for (const entry of await readdir(join(folder, 'files', key), { withFileTypes: true }).catch(() => [])) {
    const inner = key ? `${key}/${entry.name}` : entry.name;
    if (entry.isDirectory()) yield* filesOf(folder, inner);
    else if (!entry.name.endsWith('.part')) yield inner;
  }
}
