import { and, desc, eq } from 'drizzle-orm';
import type { Queries } from './db/connection.ts';
import { activity } from './db/schema.ts';

export interface Change {
  readonly personId: string;
  readonly subject: 'asset' | 'page' | 'part' | 'target' | 'licence' | 'folder' | 'hosts' | 'person';
  readonly subjectId: string;
  readonly what: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** Autosaves of one person within this time are one step of the history. */
const ONE_STEP_MILLIS = 5 * 60 * 1000;

/** As long as a window tries again by itself, and a person presses once more. */
const MOMENT_MILLIS = 60_000;

/** Writes down a change. */
export async function writeActivity(db: Queries, change: Change, now: Date): Promise<void> {
  await db.insert(activity).values({ ...change, at: now });
}

/** Writes down one of many small saves: joined with the person's last step on it when that is recent. */
export async function writeAutosave(db: Queries, change: Change, now: Date): Promise<void> {
  const [last] = await db
    .select({ id: activity.id, at: activity.at, personId: activity.personId, what: activity.what })
    .from(activity)
    .where(and(eq(activity.subject, change.subject), eq(activity.subjectId, change.subjectId)))
    .orderBy(desc(activity.id))
    .limit(1);
  const isSameStep =
    last?.personId === change.personId &&
    last.what === change.what &&
    now.getTime() - last.at.getTime() < ONE_STEP_MILLIS;
  if (last && isSameStep)
    await db.update(activity).set({ after: change.after }).where(eq(activity.id, last.id));
  else await writeActivity(db, change, now);
}

/** What a person did to something a moment ago, or undefined: a deed that is asked for again after a lost line was done. */
export async function justDone(
  db: Queries,
  deed: Pick<Change, 'personId' | 'subject' | 'subjectId' | 'what'>,
  now: Date,
): Promise<{ readonly at: Date; readonly before: unknown; readonly after: unknown } | undefined> {
  const [last] = await db
    .select()
    .from(activity)
    .where(and(eq(activity.subject, deed.subject), eq(activity.subjectId, deed.subjectId)))
    .orderBy(desc(activity.id))
    .limit(1);
  const isIt =
    last?.personId === deed.personId &&
    last.what === deed.what &&
    now.getTime() - last.at.getTime() < MOMENT_MILLIS;
  return isIt ? last : undefined;
}
