import { asc, count, eq, like, or, sql } from 'drizzle-orm';
import type { Reader } from '#api/people.ts';
import { folderPath } from '#core/naming/folders.ts';
import { FOLDER_DEPTH_LIMIT, folderDepth, withAncestors } from '#core/naming/paths.ts';
import { justDone, writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { assets, folders } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { standing } from './put-away.ts';

interface Counted {
  readonly path: string;
  readonly pieces: number;
}

/** Each folder with the pieces in it and in all folders below. */
export async function listFolders(context: Context, reader: Reader): Promise<readonly Counted[]> {
  const [named, counted] = await Promise.all([
    context.db.select().from(folders).orderBy(asc(folders.path)),
    context.db
      .select({ path: assets.folder, pieces: count() })
      .from(assets)
      .where(standing(context, reader))
      .groupBy(assets.folder),
  ]);
  const sums = new Map<string, number>(named.map(({ path }) => [path, 0]));
  for (const { path, pieces } of counted) {
    for (const above of withAncestors(path)) sums.set(above, (sums.get(above) ?? 0) + pieces);
  }
  return [...sums]
    .map(([path, pieces]) => ({ path, pieces }))
    .sort((one, other) => (one.path < other.path ? -1 : 1));
}

/** Makes a folder, and those above it that are not there yet. Answers its web-safe path. */
export async function makeFolder(
  context: Context,
  text: string,
  personId: string,
  now: Date,
): Promise<string> {
  const path = goodPath(text);
  await context.db.transaction(async (tx) => {
    if (await isThere(tx, path)) {
      if (await justDone(tx, folderDeed(path, personId, 'made a folder'), now)) return;
      throw new HttpProblem(409, `There is a folder ${path} already.`);
    }
    for (const one of withAncestors(path)) await tx.insert(folders).ignore().values({ path: one });
    await writeFolderActivity(tx, { path, personId, what: 'made a folder', before: null, after: path }, now);
  });
  return path;
}

/**
 * Moves or renames a folder with all that lies in it and below. Addresses of pieces do not change by it, so no page is
 * touched. Answers its new path.
 */
export async function moveFolder(
  context: Context,
  from: string,
  to: string,
  personId: string,
  now: Date,
): Promise<string> {
  const path = goodPath(to);
  if (path === from) return path;
  if (path.startsWith(`${from}/`))
    throw new HttpProblem(422, 'A folder cannot be moved into itself. Nothing was changed.');
  await context.db.transaction(async (tx) => {
    if (!(await isThere(tx, from))) {
      const done = await justDone(tx, folderDeed(from, personId, 'moved a folder'), now);
      if (done?.after === path) return;
      throw notFound('This folder');
    }
    if (await isThere(tx, path))
      throw new HttpProblem(
        409,
        `There is a folder ${path} already. Give this one another name, or move its pieces.`,
      );
    const below = await tx.select().from(folders).where(inFolder(folders.path, from));
    const deepest = Math.max(...below.map((one) => folderDepth(one.path)), folderDepth(from));
    assertDepth(deepest - folderDepth(from) + folderDepth(path));
    for (const one of withAncestors(path)) await tx.insert(folders).ignore().values({ path: one });
    for (const one of below) {
      await tx.delete(folders).where(eq(folders.path, one.path));
      await tx
        .insert(folders)
        .ignore()
        .values({ path: path + one.path.slice(from.length) });
    }
    await tx
      .update(assets)
      .set({ folder: sql`concat(${path}, substr(${assets.folder}, ${from.length + 1}))` })
      .where(inFolder(assets.folder, from));
    await writeFolderActivity(
      tx,
      { path: from, personId, what: 'moved a folder', before: from, after: path },
      now,
    );
  });
  return path;
}

/** Removes a folder that is empty, with the empty ones below it. */
export async function removeFolder(
  context: Context,
  path: string,
  personId: string,
  now: Date,
): Promise<void> {
  await context.db.transaction(async (tx) => {
    const [held] = await tx.select({ pieces: count() }).from(assets).where(inFolder(assets.folder, path));
    const pieces = held?.pieces ?? 0;
    if (pieces > 0)
      throw new HttpProblem(
        409,
        `${pieces === 1 ? 'One piece lies' : `${pieces} pieces lie`} in ${path}, counting those thrown away. Move them first; nothing was changed.`,
      );
    await tx.delete(folders).where(inFolder(folders.path, path));
    await writeFolderActivity(
      tx,
      { path, personId, what: 'removed a folder', before: path, after: null },
      now,
    );
  });
}

/** Which folders of a path there are not yet, outermost first. */
export async function missingFolders(context: Context, path: string): Promise<readonly string[]> {
  const missing: string[] = [];
  for (const one of withAncestors(path)) if (!(await isThere(context.db, one))) missing.push(one);
  return missing;
}

/** Removes those of the folders, given outermost first, that nothing lies in. */
export async function removeEmptyFolders(db: Queries, paths: readonly string[]): Promise<void> {
  for (const path of [...paths].reverse()) {
    const [held] = await db.select({ pieces: count() }).from(assets).where(inFolder(assets.folder, path));
    const below = await db.select().from(folders).where(inFolder(folders.path, path));
    if (held?.pieces === 0 && below.length <= 1) await db.delete(folders).where(eq(folders.path, path));
  }
}

function goodPath(text: string): string {
  assertDepth(text.split(/[/\\]/).filter((part) => part.trim() !== '').length);
  const path = folderPath(text);
  if (path === '')
    throw new HttpProblem(422, 'Nothing of this name can stand in an address. Use letters or digits in it.');
  return path;
}

function assertDepth(depth: number): void {
  if (depth > FOLDER_DEPTH_LIMIT)
    throw new HttpProblem(422, `Folders go at most ${FOLDER_DEPTH_LIMIT} deep. Nothing was changed.`);
}

type Path = typeof folders.path | typeof assets.folder;

function inFolder(column: Path, path: string) {
  return or(eq(column, path), like(column, `${path.replace(/[\\%_]/g, '\\$&')}/%`));
}

async function isThere(db: Queries, path: string): Promise<boolean> {
  const [named] = await db.select().from(folders).where(eq(folders.path, path));
  if (named) return true;
  const [held] = await db
    .select({ id: assets.id })
    .from(assets)
    .where(inFolder(assets.folder, path))
    .limit(1);
  return held !== undefined;
}

const folderDeed = (path: string, personId: string, what: string) =>
  ({ personId, subject: 'folder', subjectId: path.slice(0, ID_LETTERS), what }) as const;

const ID_LETTERS = 36;

async function writeFolderActivity(
  db: Queries,
  change: {
    readonly path: string;
    readonly personId: string;
    readonly what: string;
    readonly before: string | null;
    readonly after: string | null;
  },
  now: Date,
): Promise<void> {
  const { path, personId, what, before, after } = change;
  const subjectId = path.slice(0, ID_LETTERS);
  await writeActivity(db, { personId, subject: 'folder', subjectId, what, before, after }, now);
}
