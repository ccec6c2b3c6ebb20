import { asc } from 'drizzle-orm';
import { strictest } from '#core/page/target.ts';
import { dayIn } from '#core/rights/terms.ts';
import type { Context } from '../context.ts';
import { targets } from '../db/schema.ts';

/** The day of the house: that of the target for which pieces are judged where no page says which. */
export async function today({ db }: Pick<Context, 'db'>, now: Date): Promise<string> {
  const rules = strictest(await db.select().from(targets).orderBy(asc(targets.id)))?.rules;
  return dayIn(rules?.timeZone ?? 'UTC', now);
}
