import { and, asc, eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import type { Target } from '#api/targets.ts';
import { type HouseRules, HouseRulesSchema } from '#core/page/target.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { targets } from '../db/schema.ts';
import { notFound, Refusal } from '../problem.ts';

export function readRules(stored: unknown): HouseRules {
  return v.parse(HouseRulesSchema, stored);
}

export async function readTargets(context: Context): Promise<readonly Target[]> {
  const rows = await context.db.select().from(targets).orderBy(asc(targets.id));
  return rows.map((row) => ({ id: row.id, version: row.version, rules: readRules(row.rules) }));
}

export async function readTarget(context: Context, id: string): Promise<Target> {
  const [row] = await context.db.select().from(targets).where(eq(targets.id, id));
  if (!row) throw notFound('This target');
  return { id: row.id, version: row.version, rules: readRules(row.rules) };
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
  await context.db.transaction(async (tx) => {
    const [result] = await tx
      .update(targets)
      .set({ rules, version: version + 1 })
      .where(and(eq(targets.id, id), eq(targets.version, version)));
    if (result.affectedRows === 0) {
      throw new Refusal(
        412,
        'Somebody changed these rules meanwhile. Yours are not written over theirs; look at both and save again.',
        { current: before },
      );
    }
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'target',
        subjectId: id,
        what: 'changed the house rules',
        before: before.rules,
        after: rules,
      },
      now,
    );
  });
  return { id, version: version + 1, rules };
}
