import { and, eq, gte, ne, sql } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import { type Spending, type SpendingLimits, SpendingLimitsSchema } from '#api/purchases.ts';
import { sayAmount } from '#core/rights/offer.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { purchases, settings } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';

const SPENDING = 'spending';

/** Until the site owner says otherwise nobody but the site owner buys anything. */
const AT_FIRST: SpendingLimits = { editor: 0, 'rights-keeper': 0, 'site-owner': null, contributor: 0 };

async function readLimits(db: Queries): Promise<SpendingLimits> {
  const [row] = await db.select().from(settings).where(eq(settings.name, SPENDING));
  if (!row) return AT_FIRST;
  const read = v.safeParse(v.pipe(v.string(), v.parseJson(), SpendingLimitsSchema), row.value);
  return read.success ? read.output : AT_FIRST;
}

export async function saveLimits(
  { db }: Context,
  limits: SpendingLimits,
  person: Person,
  now: Date,
): Promise<void> {
  const value = JSON.stringify(limits);
  await db.transaction(async (tx) => {
    await tx.insert(settings).values({ name: SPENDING, value }).onDuplicateKeyUpdate({ set: { value } });
    const detail = `a month, in the smallest unit: ${value}`;
    await writeAudit(tx, { person, what: 'rules', subject: 'who may spend how much', detail }, now);
  });
}

/** What a person may spend and has spent in the month of a moment (UTC). Nothing is paid for what an agency refused. */
export async function spendingOf(db: Queries, person: Person, now: Date): Promise<Spending> {
  const limits = await readLimits(db);
  const month = new Date(Date.UTC(now.getUTCFullYear(), now.getUTCMonth()));
  const rows = await db
    .select({ currency: purchases.currency, spent: sql<string>`sum(${purchases.amount})` })
    .from(purchases)
    .where(
      and(
        eq(purchases.createdBy, person.id),
        gte(purchases.createdAt, month),
        ne(purchases.state, 'refused'),
      ),
    )
    .groupBy(purchases.currency);
  return {
    limits,
    mine: limits[person.role],
    spent: Object.fromEntries(rows.map(({ currency, spent }) => [currency, Number(spent)])),
  };
}

/** Refuses to spend more than a person may. In a transaction it is the only one that asks until that ends. */
export async function assertMaySpend(
  tx: Queries,
  person: Person,
  { amount, currency }: { readonly amount: number; readonly currency: string },
  now: Date,
): Promise<void> {
  await tx
    .insert(settings)
    .ignore()
    .values({ name: SPENDING, value: JSON.stringify(AT_FIRST) });
  await tx.select().from(settings).where(eq(settings.name, SPENDING)).for('update');
  const { mine, spent } = await spendingOf(tx, person, now);
  if (mine === null || (spent[currency] ?? 0) + amount <= mine) return;
  throw new HttpProblem(
    403,
    mine === 0
      ? 'Your role buys nothing. The site owner says in the House rules who may spend how much.'
      : `You may spend ${sayAmount(mine, currency)} a month, and have spent ${sayAmount(spent[currency] ?? 0, currency)}. Nothing was bought.`,
  );
}
