import { createHash } from 'node:crypto';
import { and, desc, eq, gt, lt } from 'drizzle-orm';
import type { OwnSession, Person } from '#api/people.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { sessions } from '../db/schema.ts';
import { notFound } from '../problem.ts';

/** A session's own name opens it, so it is told by a hash of it. */
const keyOf = (id: string) => createHash('sha256').update(id).digest('hex').slice(0, 32);
const MOST = 100;

/** A person's sign-ins that still hold, the one used last first. */
export async function sessionsOf(
  { db }: Context,
  personId: string,
  currentId: string,
  now: Date,
): Promise<OwnSession[]> {
  const rows = await db
    .select()
    .from(sessions)
    .where(and(eq(sessions.personId, personId), gt(sessions.expiresAt, now)))
    .orderBy(desc(sessions.seenAt))
    .limit(MOST);
  return rows.map(({ id, signedInAt, seenAt, address, agent }) => ({
    key: keyOf(id),
    isThis: id === currentId,
    signedInAt: signedInAt?.toISOString() ?? '',
    seenAt: seenAt?.toISOString() ?? '',
    address,
    agent,
  }));
}

export async function endSession({ db }: Context, person: Person, key: string, now: Date): Promise<void> {
  const rows = await db
    .select({ id: sessions.id, address: sessions.address })
    .from(sessions)
    .where(eq(sessions.personId, person.id));
  const row = rows.find(({ id }) => keyOf(id) === key);
  if (!row) throw notFound('This sign-in');
  await db.transaction(async (tx) => {
    await tx.delete(sessions).where(eq(sessions.id, row.id));
    await writeAudit(
      tx,
      { person, what: 'sign-in-ended', subject: person.email, detail: `from ${row.address}` },
      now,
    );
  });
}

/** When it was used last is written down at most so often. */
const SEEN_MILLIS = 60_000;

/** Writes down that a sign-in is used. One that was ended meanwhile does not come back by it. */
export async function markSeen({ db }: Context, id: string, now: Date): Promise<void> {
  const before = new Date(now.getTime() - SEEN_MILLIS);
  await db
    .update(sessions)
    .set({ seenAt: now })
    .where(and(eq(sessions.id, id), lt(sessions.seenAt, before)));
}
