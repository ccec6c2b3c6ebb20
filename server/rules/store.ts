import { and, asc, count, desc, eq, gt } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import type { NewTarget, Target } from '#api/targets.ts';
import { NOT_SENT } from '#core/deliver/sending.ts';
import { nextFree } from '#core/naming/clash.ts';
import { goodStem } from '#core/naming/names.ts';
import { type HouseRules, HouseRulesSchema, StoredRulesSchema } from '#core/page/target.ts';
import { usualRules } from '#core/page/usual-rules.ts';
import { fromStored, STORED, toStored } from '#core/stored.ts';
import { justDone, writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { activity, pages, targets } from '../db/schema.ts';
import { isSame } from '../is-same.ts';
import { checked, HttpProblem, notFound } from '../problem.ts';

export function readRules(stored: unknown): HouseRules {
  return v.parse(StoredRulesSchema, stored);
}

/** Stored rules, or null for such as do not fit. */
export function maybeRules(stored: unknown): HouseRules | null {
  const read = v.safeParse(StoredRulesSchema, stored);
  return read.success ? read.output : null;
}

export async function readTargets(context: Context): Promise<readonly Target[]> {
  const rows = await context.db.select().from(targets).orderBy(asc(targets.id));
  // One that does not fit any more keeps none of the others from being worked for; it says so itself where it is opened.
  return rows.flatMap((row) => {
    const rules = maybeRules(row.rules);
    return rules ? [{ id: row.id, version: row.version, rules }] : [];
  });
}

export async function readTarget(context: Context, id: string): Promise<Target> {
  const [row] = await context.db.select().from(targets).where(eq(targets.id, id));
  if (!row) throw notFound('This target');
  return { id: row.id, version: row.version, rules: readRules(row.rules) };
}

/** Makes a target with the usual rules, or with those of the target it is like. */
export async function addTarget(
  db: Queries,
  { like, ...said }: NewTarget,
  personId: string,
  now: Date,
  key: string = crypto.randomUUID(),
): Promise<Target> {
  const made = await madeBefore(db, key, personId, now);
  if (made) return made;
  const rows = await db.select({ id: targets.id, rules: targets.rules }).from(targets);
  const model = rows.find(({ id }) => id === like);
  if (like !== undefined && !model) throw notFound('The target that it should be like');
  // How pages come to another place, and what that keeps, is no part of what the two have in common.
  const likeIt = model ? { ...model.rules, sending: NOT_SENT } : usualRules(said);
  const rules = checked(HouseRulesSchema, { ...likeIt, ...said });
  // It stands in addresses, so it says which target it is.
  const id = nextFree(goodStem(rules.name, 'target').slice(0, 30), (stem) =>
    rows.some((row) => row.id === stem),
  );
  await db.insert(targets).values({ id, rules });
  await writeActivity(
    db,
    { personId, subject: 'target', subjectId: id, what: MADE, before: { key }, after: rules },
    now,
  );
  return { id, version: 1, rules };
}

const MADE = 'made a target';
const MadeSchema = v.object({ key: v.string() });
const MADE_MILLIS = 60_000;

/** The target that the very same wish, sent a moment ago, has made. */
async function madeBefore(
  db: Queries,
  key: string,
  personId: string,
  now: Date,
): Promise<Target | undefined> {
  const steps = await db
    .select()
    .from(activity)
    .where(
      and(
        gt(activity.at, new Date(now.getTime() - MADE_MILLIS)),
        eq(activity.personId, personId),
        eq(activity.what, MADE),
      ),
    );
  const step = steps.find(({ before }) => {
    const said = v.safeParse(MadeSchema, before);
    return said.success && said.output.key === key;
  });
  const [row] = step ? await db.select().from(targets).where(eq(targets.id, step.subjectId)) : [];
  return row && { id: row.id, version: row.version, rules: readRules(row.rules) };
}

const REMOVED = 'removed a target';
const RemovedSchema = v.object({
  version: v.number(),
  rules: v.pipe(
    v.unknown(),
    v.transform((stored) => fromStored(STORED.rules, stored)),
    StoredRulesSchema,
  ),
});

/** Removes a target that no page is for. */
export async function removeTarget(context: Context, id: string, person: Person, now: Date): Promise<void> {
  const deed = { personId: person.id, subject: 'target', subjectId: id, what: REMOVED } as const;
  if (await justDone(context.db, deed, now)) return;
  const { version, rules } = await readTarget(context, id);
  await context.db.transaction(async (tx) => {
    const [all] = await tx.select({ count: count() }).from(targets).for('update');
    const [used] = await tx.select({ count: count() }).from(pages).where(eq(pages.targetId, id));
    if ((used?.count ?? 0) > 0)
      throw new HttpProblem(409, 'Pages are made for this target, so it stays. Nothing was changed.');
    if ((all?.count ?? 0) < 2)
      throw new HttpProblem(409, 'This is the only target, and pages need one. Nothing was changed.');
    await tx.delete(targets).where(eq(targets.id, id));
    await writeAudit(tx, { person, what: 'rules', subject: rules.name, detail: 'removed the target' }, now);
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'target',
        subjectId: id,
        what: REMOVED,
        before: { version, rules: toStored(STORED.rules, rules) },
        after: null,
      },
      now,
    );
  });
}

/**
 * Brings a removed target back with its rules. Its version goes on from the last one, so that a copy that somebody
 * still has open does not pass for the newest.
 */
export async function bringBackTarget(
  { db }: Context,
  id: string,
  person: Person,
  now: Date,
): Promise<Target> {
  return db.transaction(async (tx) => {
    const [last] = await tx
      .select({ what: activity.what, before: activity.before })
      .from(activity)
      .where(and(eq(activity.subject, 'target'), eq(activity.subjectId, id)))
      .orderBy(desc(activity.id))
      .limit(1);
    const removed = v.safeParse(RemovedSchema, last?.before);
    if (last?.what !== REMOVED || !removed.success) throw notFound('A removed target of this name');
    const back = { id, version: removed.output.version + 1, rules: removed.output.rules };
    await tx.insert(targets).values(back);
    const change = { what: 'brought a target back', before: null, after: back.rules };
    await writeActivity(tx, { personId: person.id, subject: 'target', subjectId: id, ...change }, now);
    return back;
  });
}

/** Saves a target's rules on the version they were changed from; a clash (412) carries the rules as they stand. */
export async function saveRules(
  context: Context,
  id: string,
  version: number,
  rules: HouseRules,
  person: Person,
  now: Date,
): Promise<Target> {
  const before = await readTarget(context, id);
  const isWritten = await context.db.transaction(async (tx) => {
    const [result] = await tx
      .update(targets)
      .set({ rules, version: version + 1 })
      .where(and(eq(targets.id, id), eq(targets.version, version)));
    if (result.affectedRows === 0) return false;
    const change = { what: 'changed the house rules', before: before.rules, after: rules };
    await writeActivity(tx, { personId: person.id, subject: 'target', subjectId: id, ...change }, now);
    await writeAudit(
      tx,
      { person, what: 'rules', subject: rules.name, detail: sayChanged(before.rules, rules) },
      now,
    );
    return true;
  });
  if (isWritten) return { id, version: version + 1, rules };
  const current = await readTarget(context, id);
  // The very rules that stand already, sent again after a lost line.
  if (current.version === version + 1 && isSame(current.rules, rules)) return current;
  throw new HttpProblem(
    412,
    'Somebody changed these rules meanwhile. Yours are not written over theirs; look at both and save again.',
    { current },
  );
}

/** The names of the rules that differ. */
function sayChanged(before: HouseRules, after: HouseRules): string {
  return Object.entries(after)
    .filter(
      ([name, value]) =>
        !isSame(Object.entries(before).find(([other]) => other === name)?.[1] ?? null, value ?? null),
    )
    .map(([name]) => name)
    .join(', ');
}
