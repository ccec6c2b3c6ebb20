import { randomInt, randomUUID } from 'node:crypto';
import { and, asc, eq, isNull, ne } from 'drizzle-orm';
import * as v from 'valibot';
import {
  type ChangePersonSchema,
  type Colleague,
  type MadePassword,
  type NewPersonSchema,
  type Person,
  ROLE_WORDS,
  ROLES,
} from '#api/people.ts';
import { writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { isDuplicate } from '../db/failures.ts';
import { clippers, people, sessions } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { assertGoodPassword, hashPassword, isPasswordOf } from './passwords.ts';

type Row = typeof people.$inferSelect;

const RoleSchema = v.picklist(ROLES);

/** Everybody who works here or did, by name. */
export async function readColleagues({ db }: Context): Promise<readonly Colleague[]> {
  const rows = await db.select().from(people).orderBy(asc(people.name), asc(people.id));
  return rows.map(present);
}

const present = ({ id, name, email, role, leftAt }: Row): Colleague => ({
  id,
  name,
  email,
  role: v.parse(RoleSchema, role),
  left: leftAt !== null,
});

/** A new person with a password that is made here, to be handed over and changed. */
export async function addColleague(
  { db }: Context,
  wish: v.InferOutput<typeof NewPersonSchema>,
  by: Person,
  now: Date,
  id: string = randomUUID(),
): Promise<MadePassword> {
  const password = madePassword();
  const row = { id, ...wish, passwordHash: await hashPassword(password), mustChange: true };
  try {
    await db.transaction(async (tx) => {
      await tx.insert(people).values(row);
      await writeDown(tx, row.id, { what: 'added a person', before: null, after: wish }, by, now);
      await writeAudit(
        tx,
        { person: by, what: 'person', subject: wish.email, detail: `added as ${ROLE_WORDS[wish.role]}` },
        now,
      );
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    // The very wish sent again after a lost line: the person is there, and the password that was lost is made anew.
    const [known] = await db.select().from(people).where(eq(people.id, id));
    if (known?.email === wish.email && known.mustChange) return renewPassword({ db }, id, by, now);
    throw new HttpProblem(
      409,
      `Somebody with the address ${wish.email} works here or did. Nobody was added.`,
    );
  }
  return { person: { ...wish, id: row.id, left: false }, password };
}

/** Another role, leaving, or coming back. There is always a site owner. */
export async function changeColleague(
  { db }: Context,
  id: string,
  change: v.InferOutput<typeof ChangePersonSchema>,
  by: Person,
  now: Date,
): Promise<Colleague> {
  return db.transaction(async (tx) => {
    const row = await lockedPerson(tx, id);
    const role = change.role ?? row.role;
    const leftAt = change.left === undefined ? row.leftAt : change.left ? (row.leftAt ?? now) : null;
    if (row.role === 'site-owner' && (role !== 'site-owner' || leftAt)) await assertAnotherOwner(tx, id);
    await tx.update(people).set({ role, leftAt }).where(eq(people.id, id));
    // Who leaves is out for good: no sign-in and no clipper comes back with them.
    if (leftAt && !row.leftAt) await endAll(tx, id, now);
    const after = present({ ...row, role, leftAt });
    await writeAudit(
      tx,
      { person: by, what: 'person', subject: row.email, detail: sayChange(present(row), after) },
      now,
    );
    await writeDown(tx, id, { what: 'changed a person', before: present(row), after }, by, now);
    return after;
  });
}

/** Another password for somebody who forgot theirs; it ends their sign-ins. */
export async function renewPassword(
  { db }: Pick<Context, 'db'>,
  id: string,
  by: Person,
  now: Date,
): Promise<MadePassword> {
  const password = madePassword();
  const passwordHash = await hashPassword(password);
  const row = await db.transaction(async (tx) => {
    const person = await lockedPerson(tx, id);
    await tx.update(people).set({ passwordHash, passwordAt: now, mustChange: true }).where(eq(people.id, id));
    await endAll(tx, id, now);
    await writeDown(tx, id, { what: 'renewed a password', before: null, after: null }, by, now);
    await writeAudit(tx, { person: by, what: 'password-made', subject: person.email }, now);
    return person;
  });
  return { person: present(row), password };
}

/** One's own password. Every other sign-in of this person ends, and every clipper. */
export async function changePassword(
  { db }: Context,
  person: Person,
  { now: said, next }: { readonly now: string; readonly next: string },
  at: Date,
): Promise<void> {
  const { id, email } = person;
  const [row] = await db.select().from(people).where(eq(people.id, id));
  if (!(await isPasswordOf(row?.passwordHash, said)))
    throw new HttpProblem(422, 'This is not the password that you have now. Nothing was changed.');
  if (said === next)
    throw new HttpProblem(
      422,
      'This is the password that you have now. Take another one. Nothing was changed.',
    );
  assertGoodPassword(next, person);
  const passwordHash = await hashPassword(next);
  await db.transaction(async (tx) => {
    await tx.update(people).set({ passwordHash, passwordAt: at, mustChange: false }).where(eq(people.id, id));
    await endAll(tx, id, at);
    await writeAudit(tx, { person, what: 'password', subject: email }, at);
  });
}

/** Ends every sign-in and every clipper of a person. */
async function endAll(db: Queries, personId: string, now: Date): Promise<void> {
  await db.delete(sessions).where(eq(sessions.personId, personId));
  await db
    .update(clippers)
    .set({ revokedAt: now })
    .where(and(eq(clippers.personId, personId), isNull(clippers.revokedAt)));
}

function sayChange(before: Colleague, after: Colleague): string {
  const role =
    before.role === after.role ? '' : `from ${ROLE_WORDS[before.role]} to ${ROLE_WORDS[after.role]}`;
  const left = before.left === after.left ? '' : after.left ? 'left' : 'came back';
  return [role, left].filter(Boolean).join(', ');
}

async function lockedPerson(db: Queries, id: string): Promise<Row> {
  const [row] = await db.select().from(people).where(eq(people.id, id)).for('update');
  if (!row) throw notFound('This person');
  return row;
}

async function assertAnotherOwner(db: Queries, id: string): Promise<void> {
  const others = await db
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.role, 'site-owner'), isNull(people.leftAt), ne(people.id, id)))
    .for('update');
  if (others.length === 0)
    throw new HttpProblem(
      409,
      'This is the only site owner, and somebody has to be. Make another one first. Nothing was changed.',
    );
}

function writeDown(
  db: Queries,
  subjectId: string,
  step: { readonly what: string; readonly before: unknown; readonly after: unknown },
  by: Person,
  now: Date,
): Promise<void> {
  return writeActivity(db, { personId: by.id, subject: 'person', subjectId, ...step }, now);
}

/** Without letters that are taken for one another. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** Sixteen letters in fours, about 79 bits. */
function madePassword(): string {
  const four = () => Array.from({ length: 4 }, () => LETTERS[randomInt(LETTERS.length)]).join('');
  return Array.from({ length: 4 }, four).join('-');
}
