import { and, desc, eq } from 'drizzle-orm';
import type { Queries } from './db/connection.ts';
import { activity } from './db/schema.ts';

export interface Change {
  readonly personId: string;
  readonly subject: 'asset' | 'page' | 'target' | 'folder' | 'hosts' | 'person';
  readonly subjectId: string;
  readonly what: string;
  readonly before: unknown;
  readonly after: unknown;
}

/** Autosaves of one person within this time are one step of the history. */
const ONE_STEP_MILLIS = 5 * 60 * 1000;

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
