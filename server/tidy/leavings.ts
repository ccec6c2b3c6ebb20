import { readdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { eq, inArray, lt } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { arrivals, uploads } from '../db/schema.ts';
import { workFolders } from '../work-folder.ts';

const AT_A_TIME = 1000;

/** Uploads that were begun too long ago, with their bytes; and bytes of which no upload knows. Answers how many. */
export async function clearUploads(context: Context, begun: Date, stray: Date): Promise<number> {
  const { db, config } = context;
  const folder = join(config.dataFolder, 'uploads');
  const old = await db.select({ id: uploads.id }).from(uploads).where(lt(uploads.at, begun)).limit(AT_A_TIME);
  for (const { id } of old) {
    await rm(join(folder, id), { force: true });
    await rm(join(folder, `${id}.json`), { force: true });
    await db.delete(uploads).where(eq(uploads.id, id));
  }
  // What an arrival was answered is asked for again at most as long as its upload could have been.
  await db.delete(arrivals).where(lt(arrivals.at, begun)).limit(AT_A_TIME);
  const names = await readdir(folder).catch(() => []);
  let cleared = old.length;
  for (let at = 0; at < names.length; at += AT_A_TIME) {
    const some = names.slice(at, at + AT_A_TIME);
    const ids = some.map((name) => name.replace(/\.json$/, ''));
    const known = await db.select({ id: uploads.id }).from(uploads).where(inArray(uploads.id, ids));
    const kept = new Set(known.map(({ id }) => id));
    for (const name of some)
      if (!kept.has(name.replace(/\.json$/, ''))) cleared += await removeOld(join(folder, name), stray);
  }
  return cleared;
}

/** Half-written files, and folders in which killed jobs packed. */
export async function clearLeavings(context: Context, before: Date): Promise<number> {
  let cleared = await context.storage.clear(before);
  const folder = workFolders(context);
  for (const name of await readdir(folder).catch(() => []))
    cleared += await removeOld(join(folder, name), before);
  return cleared;
}

async function removeOld(path: string, before: Date): Promise<number> {
  const found = await stat(path).catch(() => null);
  if (!found || found.mtime >= before) return 0;
  await rm(path, { recursive: true, force: true });
  return 1;
}
