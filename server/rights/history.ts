import { and, desc, eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { HistoryLine } from '#api/rights.ts';
import { LabelSchema } from '#core/rights/label.ts';
import { sayLabelField } from '#core/rights/say-label.ts';
import { fromStored, STORED } from '#core/stored.ts';
import type { Context } from '../context.ts';
import { activity, people } from '../db/schema.ts';
import { isSame } from '../is-same.ts';

const SHOWN = 40;

const StateSchema = v.looseObject({ label: v.unknown() });

/** Who said what of a piece, and when: newest first, with what each field of its label said from then on. */
export async function historyOf({ db }: Context, assetId: string): Promise<HistoryLine[]> {
  const rows = await db
    .select({ step: activity, name: people.name })
    .from(activity)
    .leftJoin(people, eq(people.id, activity.personId))
    .where(and(eq(activity.subject, 'asset'), eq(activity.subjectId, assetId)))
    .orderBy(desc(activity.id))
    .limit(SHOWN);
  return rows.map(({ step, name }) => ({
    at: step.at.toISOString(),
    who: name ?? 'Somebody',
    what: step.what,
    fields: changedFields(step.before, step.after),
  }));
}

function changedFields(before: unknown, after: unknown): HistoryLine['fields'] {
  const now = labelIn(after);
  if (!now) return [];
  const was = labelIn(before);
  return Object.entries(now).flatMap(([field, value]) => {
    const old = was && Object.entries(was).find(([name]) => name === field)?.[1];
    if (was ? isSame(old, value) : sayLabelField(field, value) === '') return [];
    return [{ field, now: sayLabelField(field, value) }];
  });
}

/** A label as a step of the history kept it, brought up to date; null where the step was not about one. */
function labelIn(state: unknown): v.InferOutput<typeof LabelSchema> | null {
  const read = v.safeParse(StateSchema, state);
  if (!read.success) return null;
  const label = v.safeParse(LabelSchema, fromStored(STORED.label, read.output.label));
  return label.success ? label.output : null;
}
