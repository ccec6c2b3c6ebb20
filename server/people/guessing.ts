import { and, count, eq, gt } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { audit } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';

/** Wrong passwords for one account within a quarter of an hour, from however many places. */
const TRIES = 30;
const TRIES_MILLIS = 15 * 60 * 1000;

/**
 * Refuses to try another password for an account that is being guessed at. The limit for one place does not help
 * against many places; those who are signed in stay so.
 */
export async function assertNotGuessed({ db }: Context, email: string, now: Date): Promise<void> {
  const [row] = await db
    .select({ tries: count() })
    .from(audit)
    .where(
      and(
        eq(audit.what, 'sign-in-refused'),
        eq(audit.subject, email),
        gt(audit.at, new Date(now.getTime() - TRIES_MILLIS)),
      ),
    );
  if ((row?.tries ?? 0) < TRIES) return;
  throw new HttpProblem(
    429,
    'Somebody has tried many passwords for this address. Wait a quarter of an hour and try again, or ask the site owner for a new password.',
    { retryAfterSeconds: TRIES_MILLIS / 1000 },
  );
}
