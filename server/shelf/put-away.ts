import { and, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import { mayChangePiece, type Person } from '#api/people.ts';
import { writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { assets, cuts, held, likenessCurves } from '../db/schema.ts';
import { allMade, madeKey } from '../films/made-store.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { cutKey, originalKey } from '../storage/storage.ts';
import { carryOutRemovals, orderRemovals } from '../tidy/removals.ts';
import { pieceName } from './change.ts';
import { filesOfPiece } from './own-file.ts';
import type { AssetRow } from './present.ts';
import { type Asker, seen, seenBy } from './seen.ts';

const DAY_MILLIS = 24 * 60 * 60 * 1000;

/** Throws a piece away: off the shelf, but kept with its label and its files, and brought back by one press. */
export async function throwAway(context: Context, id: string, person: Person, now: Date): Promise<AssetRow> {
  const row = await anyAsset(context, id);
  assertMay(person, row);
  if (row.deletedAt) return row;
  await setDeleted(context, row, now, 'threw it away', person, now);
  return { ...row, deletedAt: now };
}

export async function bringBack(context: Context, id: string, person: Person, now: Date): Promise<AssetRow> {
  const row = await anyAsset(context, id);
  assertMay(person, row);
  await setDeleted(context, row, null, 'brought it back', person, now);
  return { ...row, deletedAt: null };
}

async function setDeleted(
  context: Context,
  row: AssetRow,
  deletedAt: Date | null,
  what: string,
  person: Person,
  now: Date,
): Promise<void> {
  await context.db.transaction(async (tx) => {
    await tx.update(assets).set({ deletedAt }).where(eq(assets.id, row.id));
    const deed = deletedAt ? 'thrown-away' : 'brought-back';
    await writeAudit(tx, { person, what: deed, subject: pieceName(row) }, now);
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'asset',
        subjectId: row.id,
        what,
        before: { deletedAt: row.deletedAt },
        after: { deletedAt },
      },
      now,
    );
  });
}

/** Folds a lookalike away under the piece that stands for it; `into` null lets it stand by itself again. */
export async function fold(
  context: Context,
  id: string,
  into: string | null,
  person: Person,
  now: Date,
): Promise<AssetRow> {
  const row = await anyAsset(context, id);
  if (into !== null) {
    const head = seen(await anyAsset(context, into), person);
    if (head.id === id || head.foldedInto !== null || head.deletedAt !== null)
      throw new HttpProblem(409, 'A piece is folded under one that stands on the shelf by itself.');
  }
  await context.db.transaction(async (tx) => {
    await tx.update(assets).set({ foldedInto: into }).where(eq(assets.id, id));
    // What was folded under it goes along, so that nothing hangs under a piece that is not seen.
    if (into !== null) await tx.update(assets).set({ foldedInto: into }).where(eq(assets.foldedInto, id));
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'asset',
        subjectId: id,
        what: into ? 'folded it away' : 'unfolded it',
        before: { foldedInto: row.foldedInto },
        after: { foldedInto: into },
      },
      now,
    );
  });
  return { ...row, foldedInto: into };
}

/** A piece whether or not it was thrown away. */
export async function anyAsset(context: Context, id: string): Promise<AssetRow> {
  const [row] = await context.db.select().from(held).where(eq(held.id, id));
  if (!row) throw notFound('This piece');
  return row;
}

function assertMay(person: Person, row: AssetRow): void {
  if (mayChangePiece(person, row.createdBy)) return;
  throw new HttpProblem(
    403,
    'You can throw away the pieces that you handed in. This one is somebody else’s.',
  );
}

/**
 * Removes for good what was thrown away as long ago as the configuration says; answers how many pieces. Their files are
 * written down in the same step, and removed after it.
 */
export async function emptyBin(context: Context, now: Date): Promise<number> {
  const before = new Date(now.getTime() - context.config.keepDays.bin * DAY_MILLIS);
  const isOver = and(isNotNull(assets.deletedAt), lt(assets.deletedAt, before));
  const rows = await context.db.select({ id: assets.id }).from(assets).where(isOver).limit(500);
  for (const { id } of rows)
    await context.db.transaction(async (tx) => {
      // Somebody may have brought it back meanwhile.
      const [still] = await tx
        .select({ id: assets.id })
        .from(assets)
        .where(and(eq(assets.id, id), isOver))
        .for('update');
      const [row] = still ? await tx.select().from(held).where(eq(held.id, id)) : [];
      if (!row) return;
      const made = await tx.select().from(cuts).where(eq(cuts.assetId, id));
      const keys = made.map(({ recipe, widthPx, format, quality }) =>
        cutKey(row.sha256, recipe, widthPx, format, quality),
      );
      const played =
        row.filmSha256 === null ? [] : allMade(row).map((one) => madeKey(row.filmSha256 ?? '', one));
      await orderRemovals(tx, [...filesOfPiece(row).map(originalKey), ...keys, ...played], now);
      await tx.update(assets).set({ foldedInto: null }).where(eq(assets.foldedInto, id));
      await tx.delete(likenessCurves).where(eq(likenessCurves.sha256, row.sha256));
      // Its cuts, pins, looks and provenance go with it.
      await tx.delete(assets).where(eq(assets.id, id));
      await writeAudit(tx, { person: null, what: 'removed', subject: pieceName(row) }, now);
    });
  await carryOutRemovals(context);
  return rows.length;
}

/** What stands on the shelf for somebody: not thrown away, not folded under another, and theirs to see. */
export const standing = (context: Context, asker: Asker, of: typeof assets | typeof held = assets) =>
  and(isNull(of.deletedAt), isNull(of.foldedInto), seenBy(context, asker, of));
