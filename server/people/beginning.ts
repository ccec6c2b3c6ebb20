import { randomBytes, randomUUID, timingSafeEqual } from 'node:crypto';
import { count, eq } from 'drizzle-orm';
import type * as v from 'valibot';
import type { BeginSchema, Person } from '#api/people.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { people, settings } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';
import { addTarget } from '../rules/store.ts';
import { assertGoodPassword, hashPassword } from './passwords.ts';

const CODE = 'beginning';

/** Whether nobody works here yet. */
export async function isEmptyHouse(db: Queries): Promise<boolean> {
  const [row] = await db.select({ count: count() }).from(people);
  return row?.count === 0;
}

/**
 * The code with which the first person begins, the same for all processes on one database; null once somebody works
 * here. It is printed where Placard is started, so that whoever finds the address first is not let in by that alone.
 */
export async function beginningCode({ db }: Context): Promise<string | null> {
  if (!(await isEmptyHouse(db))) return null;
  await db
    .insert(settings)
    .ignore()
    .values({ name: CODE, value: randomBytes(12).toString('base64url') });
  const [row] = await db.select().from(settings).where(eq(settings.name, CODE));
  return row?.value ?? null;
}

/** The first person, who is the site owner, and the first target: both or neither, and only once. */
export async function begin(
  { db }: Context,
  wish: v.InferOutput<typeof BeginSchema>,
  now: Date,
): Promise<Person> {
  assertGoodPassword(wish.password, wish);
  const passwordHash = await hashPassword(wish.password);
  const { name, email } = wish;
  const person: Person = { id: randomUUID(), name, email, role: 'site-owner', mustChange: false };
  await db.transaction(async (tx) => {
    const [kept] = await tx.select().from(settings).where(eq(settings.name, CODE)).for('update');
    if (!kept || !(await isEmptyHouse(tx)))
      throw new HttpProblem(409, 'Somebody works here already. Ask the site owner for a sign-in.');
    if (!isSame(kept.value, wish.code))
      throw new HttpProblem(
        403,
        'This is not the code that was printed where Placard was started. Look there.',
      );
    await tx.insert(people).values({ ...person, passwordHash });
    await writeAudit(tx, { person, what: 'person', subject: email, detail: 'began the house' }, now);
    await addTarget(tx, wish.target, person.id, now);
    await tx.delete(settings).where(eq(settings.name, CODE));
  });
  return person;
}

function isSame(kept: string, said: string): boolean {
  const [one, other] = [Buffer.from(kept), Buffer.from(said)];
  return one.length === other.length && timingSafeEqual(one, other);
}
