import { and, asc, desc, eq, inArray, isNull, lte, or } from 'drizzle-orm';
import type { SendingPlan, SendingPlanWish } from '#api/deliveries.ts';
import type { Person } from '#api/people.ts';
import { isPasted } from '#core/deliver/sending.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { deliveries, pages, people, sendingPlans } from '../db/schema.ts';
import { pause } from '../jobs/pause.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { assertMaySend } from '../pages/gate.ts';
import { readPage } from '../pages/store.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { orderDelivery, takeDown } from './deliveries.ts';
import { SendProblem } from './way.ts';

type PlanRow = typeof sendingPlans.$inferSelect;

/** What stands in its way may be gone a little later: a sending by hand, a host that is busy. */
const PATIENCE_MILLIS = 10 * 60 * 1000;
const TAKING_DOWN_PATIENCE_MILLIS = 24 * 60 * 60 * 1000;
const AT_ONCE = 10;
/** Nobody plans by the second. */
const LOOKED_EVERY_MILLIS = 5000;

/** Plans when a page goes out and is taken down, in place of what was planned before. */
export async function planSending(
  context: Context,
  pageId: string,
  wish: SendingPlanWish,
  person: Person,
  now: Date,
): Promise<void> {
  const [startAt, endAt] = [momentOf(wish.startAt), momentOf(wish.endAt)];
  assertAhead(startAt, endAt, now);
  const { rules } = await readPage(context, pageId, person);
  assertMaySend(rules, person);
  if (isPasted(rules.sending))
    throw new HttpProblem(
      409,
      `Pages of ${rules.name} are pasted there by hand: none goes out or comes down by itself. Nothing was planned.`,
    );
  await context.db.transaction(async (tx) => {
    const [page] = await tx.select().from(pages).where(eq(pages.id, pageId)).for('update');
    if (!page) throw notFound('This page');
    const state = startAt ? 'waiting' : 'out';
    const deliveryId = crypto.randomUUID();
    const row = { personId: person.id, at: now, startAt, endAt, state, deliveryId, words: '' };
    await tx
      .insert(sendingPlans)
      .values({ pageId, ...row })
      .onDuplicateKeyUpdate({ set: row });
    const detail = [
      startAt && `goes out ${startAt.toISOString()}`,
      endAt && `taken down ${endAt.toISOString()}`,
    ];
    await writeAudit(
      tx,
      { person, what: 'planned', subject: page.title, detail: detail.filter(Boolean).join(', ') },
      now,
    );
  });
}

const momentOf = (iso: string | null): Date | null => (iso === null ? null : new Date(iso));

function assertAhead(startAt: Date | null, endAt: Date | null, now: Date): void {
  if (!startAt && !endAt) throw new HttpProblem(422, 'Say when it goes out, or when it is taken down.');
  if ((startAt && startAt <= now) || (endAt && endAt <= now))
    throw new HttpProblem(422, 'What is planned lies ahead: give a moment that is still to come.');
  if (startAt && endAt && endAt <= startAt)
    throw new HttpProblem(422, 'It is taken down after it went out: give a later moment.');
}

export async function cancelPlan(context: Context, pageId: string, person: Person): Promise<void> {
  assertMaySend((await readPage(context, pageId, person)).rules, person);
  await context.db.delete(sendingPlans).where(eq(sendingPlans.pageId, pageId));
}

export async function planOf({ db }: Context, pageId: string): Promise<SendingPlan | null> {
  const [found] = await db
    .select({ row: sendingPlans, by: people.name })
    .from(sendingPlans)
    .leftJoin(people, eq(people.id, sendingPlans.personId))
    .where(eq(sendingPlans.pageId, pageId));
  if (!found) return null;
  const { row, by } = found;
  return {
    startAt: row.startAt?.toISOString() ?? null,
    endAt: row.endAt?.toISOString() ?? null,
    state: stateOf(row.state),
    by: by ?? 'somebody who left',
    words: row.words,
  };
}

function stateOf(state: string): SendingPlan['state'] {
  switch (state) {
    case 'out':
    case 'done':
    case 'failed':
      return state;
    default:
      return 'waiting';
  }
}

/** Why plans of these pages came to nothing, by page. */
export async function failedPlans(
  { db }: Context,
  pageIds: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  if (pageIds.length === 0) return new Map();
  const rows = await db
    .select({ pageId: sendingPlans.pageId, words: sendingPlans.words })
    .from(sendingPlans)
    .where(and(inArray(sendingPlans.pageId, [...pageIds]), eq(sendingPlans.state, 'failed')));
  return new Map(rows.map(({ pageId, words }) => [pageId, words]));
}

/** Sends and takes down what is planned, in time, until `signal` aborts. What fell into a time when nothing ran is done late. */
export async function followPlansInTime(context: Context, signal: AbortSignal): Promise<void> {
  while (!signal.aborted) {
    await followPlans(context, new Date()).catch((error: unknown) => {
      if (!signal.aborted) context.log.warn({ err: error }, 'a plan could not be followed');
    });
    await pause(LOOKED_EVERY_MILLIS, signal);
  }
}

/** Does what is due; answers for how many pages. Done by two at once, it is done once: a sending and its end are known by their IDs. */
export async function followPlans(context: Context, now: Date): Promise<number> {
  const isDue = or(
    and(eq(sendingPlans.state, 'waiting'), lte(sendingPlans.startAt, now)),
    and(eq(sendingPlans.state, 'out'), lte(sendingPlans.endAt, now)),
  );
  const due = await context.db
    .select()
    .from(sendingPlans)
    .where(isDue)
    .orderBy(asc(sendingPlans.startAt))
    .limit(AT_ONCE);
  for (const plan of due) await follow(context, plan, now);
  return due.length;
}

async function follow(context: Context, plan: PlanRow, now: Date): Promise<void> {
  const isStart = plan.state === 'waiting';
  const since = (isStart ? plan.startAt : plan.endAt)?.getTime() ?? 0;
  const patience = isStart ? PATIENCE_MILLIS : TAKING_DOWN_PATIENCE_MILLIS;
  try {
    const person = await personOf(context.db, plan.personId);
    if (isStart) await orderDelivery(context, plan.pageId, plan.deliveryId, person, now);
    else await takeDownNewest(context, plan.pageId, person, now);
    await settle(context.db, plan, isStart && plan.endAt ? 'out' : 'done', '');
  } catch (error) {
    const isTold =
      error instanceof HttpProblem || error instanceof SendProblem || error instanceof OutboundProblem;
    if (!isTold || context.ending.aborted) throw error;
    const isOver = now.getTime() - since >= patience || !mayPass(error);
    await settle(context.db, plan, isOver ? 'failed' : plan.state, error.message.slice(0, 500));
  }
}

/** Whether it may work a little later: somebody sends it just now, or the other side is busy. */
const mayPass = (error: HttpProblem | SendProblem | OutboundProblem): boolean =>
  error instanceof OutboundProblem || (error instanceof HttpProblem && /just now/.test(error.message));

async function personOf(db: Queries, id: string): Promise<Person> {
  const [row] = await db
    .select()
    .from(people)
    .where(and(eq(people.id, id), isNull(people.leftAt)));
  if (row) return presentPerson(row);
  throw new HttpProblem(409, 'Whoever planned this is not here any more. Plan it anew.');
}

async function takeDownNewest(context: Context, pageId: string, person: Person, now: Date): Promise<void> {
  const [out] = await context.db
    .select({ id: deliveries.id })
    .from(deliveries)
    .innerJoin(pages, and(eq(pages.id, deliveries.pageId), eq(pages.targetId, deliveries.targetId)))
    .where(and(eq(deliveries.pageId, pageId), eq(deliveries.state, 'out')))
    .orderBy(desc(deliveries.at))
    .limit(1);
  // Somebody took it down by hand.
  if (out) await takeDown(context, out.id, person, now, context.ending);
}

/** Says how far it is, unless somebody planned it otherwise meanwhile. */
async function settle(db: Queries, plan: PlanRow, state: string, words: string): Promise<void> {
  await db
    .update(sendingPlans)
    .set({ state, words })
    .where(and(eq(sendingPlans.pageId, plan.pageId), eq(sendingPlans.deliveryId, plan.deliveryId)));
}
