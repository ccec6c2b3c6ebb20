import { and, eq, inArray, isNotNull, lt } from 'drizzle-orm';
import type { KeepDays } from '../config.ts';
import type { Context } from '../context.ts';
import { activity, audit, clips, jobs, sessions, settings } from '../db/schema.ts';
import { clearTagged } from '../deliver/tagged.ts';
import { clearPreviews } from '../gather/preview.ts';
import { emptyBin } from '../shelf/put-away.ts';
import { bundleKey } from '../storage/storage.ts';
import { clearLeavings, clearUploads } from './leavings.ts';
import { carryOutRemovals, orderRemovals } from './removals.ts';
import { sweepStrays } from './strays.ts';

/** What was tidied away, in counts. */
export type Tidied = Readonly<
  Record<
    | 'sessions'
    | 'uploads'
    | 'bundles'
    | 'jobs'
    | 'bin'
    | 'clips'
    | 'activity'
    | 'audit'
    | 'leavings'
    | 'strays'
    | 'files'
    /** Pieces whose original is not where it should be: nothing can be done about them here. */
    | 'missing',
    number
  >
>;

const DAY_MILLIS = 24 * 60 * 60 * 1000;
/** So many rows at a time, so that no question holds the tables for long. */
const AT_A_TIME = 1000;

/**
 * Removes what nobody needs any more, each thing after its days in the configuration, and says what it did. Done now and
 * then by whichever worker comes to it; doing it twice, or at two processes at once, does no harm.
 */
export async function tidy(context: Context, now: Date): Promise<Tidied> {
  const { db, config } = context;
  const before = (what: keyof KeepDays) => new Date(now.getTime() - config.keepDays[what] * DAY_MILLIS);
  const [overSessions] = await db.delete(sessions).where(lt(sessions.expiresAt, now)).limit(AT_A_TIME);
  const [overClips] = await db
    .delete(clips)
    .where(lt(clips.at, before('clips')))
    .limit(AT_A_TIME);
  const [overActivity] = await db
    .delete(activity)
    .where(lt(activity.at, before('activity')))
    .limit(AT_A_TIME);
  const [overAudit] = await db
    .delete(audit)
    .where(lt(audit.at, before('audit')))
    .limit(AT_A_TIME);
  const bundles = await clearBundles(context, before('bundles'), now);
  const [overJobs] = await db
    .delete(jobs)
    .where(and(inArray(jobs.state, ENDED), lt(jobs.createdAt, before('jobs'))))
    .limit(AT_A_TIME);
  const bin = await emptyBin(context, now);
  await clearPreviews(context, now);
  const swept = (await isTimeToSweep(context, now))
    ? await sweepStrays(context, before('strays'), now)
    : { strays: 0, missing: 0 };
  return {
    sessions: overSessions.affectedRows,
    clips: overClips.affectedRows,
    activity: overActivity.affectedRows,
    audit: overAudit.affectedRows,
    bundles,
    jobs: overJobs.affectedRows,
    bin,
    uploads: await clearUploads(context, before('uploads'), before('strays')),
    leavings:
      (await clearLeavings(context, before('strays'))) + (await clearTagged(context, before('bundles'))),
    ...swept,
    files: await carryOutRemovals(context),
  };
}

const ENDED = ['done', 'failed', 'stopped'];

/** Files that jobs made, after their days; the job stays a while and says that its file is gone. */
async function clearBundles({ db }: Context, before: Date, now: Date): Promise<number> {
  const rows = await db
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(isNotNull(jobs.resultKey), inArray(jobs.state, ENDED), lt(jobs.createdAt, before)))
    .limit(AT_A_TIME);
  for (const { id } of rows)
    await db.transaction(async (tx) => {
      await tx
        .update(jobs)
        .set({ resultKey: null, resultBytes: null, words: 'Its file was kept for some days, and is gone.' })
        .where(eq(jobs.id, id));
      await orderRemovals(tx, [bundleKey(id)], now);
    });
  return rows.length;
}

const SWEPT = 'swept-at';

/** Looking for strays reads the names of all files, so it is done once a day, by one process. */
async function isTimeToSweep({ db }: Context, now: Date): Promise<boolean> {
  return db.transaction(async (tx) => {
    await tx
      .insert(settings)
      .ignore()
      .values({ name: SWEPT, value: new Date(0).toISOString() });
    const [row] = await tx.select().from(settings).where(eq(settings.name, SWEPT)).for('update');
    if (now.getTime() - Date.parse(row?.value ?? '') < DAY_MILLIS) return false;
    await tx.update(settings).set({ value: now.toISOString() }).where(eq(settings.name, SWEPT));
    return true;
  });
}
