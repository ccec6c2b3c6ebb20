import { and, asc, gt, inArray, isNull } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { cuts, documents, films, held, jobs, pictures, publicFiles } from '../db/schema.ts';
import { allMade, madeKey } from '../films/made-store.ts';
import { filesOfPiece } from '../shelf/own-file.ts';
import { cutKey, originalKey, type Stored, sentKey } from '../storage/storage.ts';
import { orderRemovals } from './removals.ts';

const AT_A_TIME = 500;
/** How many missing originals are named in the log. */
const TOLD = 20;

export interface Swept {
  readonly strays: number;
  readonly missing: number;
}

/**
 * Holds files and rows against each other: orders files that no row names to be removed, once they are old enough that
 * nothing can be on its way to name them, and counts pieces whose original is gone.
 */
export async function sweepStrays(context: Context, before: Date, now: Date): Promise<Swept> {
  let strays = 0;
  for (const [folder, named] of [
    ['originals', namedOriginals],
    ['cuts', namedCuts],
    ['films', namedFilms],
    ['sent', namedSent],
    ['bundles', namedBundles],
  ] as const)
    for await (const some of inBatches(context.storage.list(folder))) {
      const old = some.filter(({ at }) => at < before).map(({ key }) => key);
      if (old.length === 0) continue;
      const kept = await named(context, old);
      const stray = old.filter((key) => !kept.has(key));
      await orderRemovals(context.db, stray, now);
      strays += stray.length;
    }
  return { strays, missing: await countMissing(context) };
}

async function* inBatches(stored: AsyncIterable<Stored>): AsyncIterable<readonly Stored[]> {
  let some: Stored[] = [];
  for await (const one of stored) {
    some.push(one);
    if (some.length < AT_A_TIME) continue;
    yield some;
    some = [];
  }
  if (some.length > 0) yield some;
}

const hashOf = (key: string) => key.split('/')[2] ?? '';

async function namedOriginals({ db }: Context, keys: readonly string[]): Promise<ReadonlySet<string>> {
  const hashes = keys.map(hashOf);
  const shown = await db
    .select({ sha256: pictures.sha256 })
    .from(pictures)
    .where(inArray(pictures.sha256, hashes));
  const filed = await db
    .select({ sha256: documents.sha256 })
    .from(documents)
    .where(inArray(documents.sha256, hashes));
  const played = await db.select({ sha256: films.sha256 }).from(films).where(inArray(films.sha256, hashes));
  return new Set([...shown, ...filed, ...played].map(({ sha256 }) => originalKey(sha256)));
}

async function namedCuts({ db }: Context, keys: readonly string[]): Promise<ReadonlySet<string>> {
  const pieces = await db
    .select({ id: pictures.assetId, sha256: pictures.sha256 })
    .from(pictures)
    .where(inArray(pictures.sha256, [...new Set(keys.map(hashOf))]));
  if (pieces.length === 0) return new Set();
  const hashes = new Map(pieces.map(({ id, sha256 }) => [id, sha256]));
  const rows = await db
    .select()
    .from(cuts)
    .where(inArray(cuts.assetId, [...hashes.keys()]));
  return new Set(
    rows.map((cut) =>
      cutKey(hashes.get(cut.assetId) ?? '', cut.recipe, cut.widthPx, cut.format, cut.quality),
    ),
  );
}

async function namedFilms({ db }: Context, keys: readonly string[]): Promise<ReadonlySet<string>> {
  const rows = await db
    .select({ sha256: films.sha256, made: films.made })
    .from(films)
    .where(inArray(films.sha256, [...new Set(keys.map(hashOf))]));
  return new Set(rows.flatMap((row) => allMade(row).map((one) => madeKey(row.sha256, one))));
}

async function namedSent({ db }: Context, keys: readonly string[]): Promise<ReadonlySet<string>> {
  const rows = await db
    .select({ sha256: publicFiles.sha256 })
    .from(publicFiles)
    .where(and(inArray(publicFiles.sha256, keys.map(hashOf)), isNull(publicFiles.goneAt)));
  return new Set(rows.map(({ sha256 }) => sentKey(sha256)));
}

async function namedBundles({ db }: Context, keys: readonly string[]): Promise<ReadonlySet<string>> {
  const rows = await db
    .select({ resultKey: jobs.resultKey })
    .from(jobs)
    .where(inArray(jobs.resultKey, [...keys]));
  return new Set(rows.flatMap(({ resultKey }) => resultKey ?? []));
}

async function countMissing(context: Context): Promise<number> {
  const there = new Set<string>();
  for await (const { key } of context.storage.list('originals')) there.add(key);
  let missing = 0;
  for (let after = ''; ; ) {
    const rows = await context.db
      .select({
        id: held.id,
        sha256: held.sha256,
        documentSha256: held.documentSha256,
        filmSha256: held.filmSha256,
      })
      .from(held)
      .where(gt(held.id, after))
      .orderBy(asc(held.id))
      .limit(AT_A_TIME);
    for (const { id, ...row } of rows) {
      if (filesOfPiece(row).every((one) => there.has(originalKey(one)))) continue;
      missing += 1;
      if (missing <= TOLD)
        context.log.error({ asset: id }, 'the original of a piece is missing: bring it back from a backup');
    }
    const last = rows.at(-1);
    if (!last) return missing;
    after = last.id;
  }
}
