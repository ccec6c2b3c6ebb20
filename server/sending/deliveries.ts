import { and, asc, desc, eq, gt, inArray, notExists } from 'drizzle-orm';
import { alias } from 'drizzle-orm/mysql-core';
import type * as v from 'valibot';
import type { DeliveriesSchema, Delivery, SendingPlan } from '#api/deliveries.ts';
import type { Person } from '#api/people.ts';
import { type Difference, isLost } from '#core/deliver/compare.ts';
import { sayDifference } from '#core/deliver/say.ts';
import { isPasted, WAY_SECRETS } from '#core/deliver/sending.ts';
import { headTitleOf } from '#core/page/page-head.ts';
import type { HouseRules } from '#core/page/target.ts';
import { sayFinding } from '#core/proof/say.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { deliveries, jobs, pages, people, targets } from '../db/schema.ts';
import { addJob } from '../jobs/queue.ts';
import { deliveryPath, signedAddress } from '../media/addresses.ts';
import { assertMayGoOut, assertMaySend, whatStops } from '../pages/gate.ts';
import { readPage } from '../pages/store.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { credentialSince } from './credentials.ts';
import { missingFor, wayOf } from './door.ts';
import { withdrawPublic } from './public-files.ts';
import { SEND } from './send.ts';

const MOST_LISTED = 20;
const UNDER_WAY = ['waiting', 'running'];

type DeliveryRow = typeof deliveries.$inferSelect;

/** Orders the sending of a page to its target, or to another; refused while it is being sent already. */
export async function orderDelivery(
  context: Context,
  pageId: string,
  id: string,
  person: Person,
  now: Date,
  target?: string,
): Promise<Delivery> {
  const whole = await readPage(context, pageId, person, target);
  const { targetId } = whole;
  assertMayGoOut(whole, person);
  const { isPossible, why } = await possible(context, targetId);
  if (!isPossible) throw new HttpProblem(409, why);
  const title = headTitleOf(whole.doc) || 'Untitled page';
  await context.db.transaction(async (tx) => {
    await tx.select({ id: pages.id }).from(pages).where(eq(pages.id, pageId)).for('update');
    const [same] = await tx.select({ id: deliveries.id }).from(deliveries).where(eq(deliveries.id, id));
    if (same) return;
    const [other] = await tx
      .select({ name: people.name })
      .from(deliveries)
      .innerJoin(jobs, eq(jobs.id, deliveries.jobId))
      .leftJoin(people, eq(people.id, deliveries.personId))
      .where(and(eq(deliveries.pageId, pageId), inArray(jobs.state, UNDER_WAY)))
      .limit(1);
    if (other) {
      const who = other.name ?? 'Somebody';
      throw new HttpProblem(409, `${who} is sending this page just now. Wait until that has ended.`);
    }
    const jobId = await addJob(
      { db: tx },
      { kind: SEND, title, input: { deliveryId: id }, personId: person.id },
      now,
    );
    const row = { id, pageId, targetId, personId: person.id, at: now, title: title.slice(0, 300), jobId };
    await tx.insert(deliveries).values({ ...row, state: 'sending', compared: [] });
  });
  return readDelivery(context, id);
}

/** Whether pages can be sent to a target, and else what is missing, in a sentence. */
async function possible(
  context: Context,
  targetId: string,
): Promise<{ readonly isPossible: boolean; readonly why: string }> {
  const { rules } = await readTarget(context, targetId);
  const missing = missingFor(context, rules);
  if (missing !== null) return { isPossible: false, why: missing };
  const secret = WAY_SECRETS[rules.sending.by];
  return secret === null || (await credentialSince(context, targetId))
    ? { isPossible: true, why: '' }
    : {
        isPossible: false,
        why: `${rules.name} has no ${secret} yet, which opens it to the house. The site owner sets it in House rules.`,
      };
}

export async function listDeliveries(
  context: Context,
  pageId: string,
  reader: Person,
  plan: SendingPlan | null,
  target?: string,
): Promise<v.InferOutput<typeof DeliveriesSchema>> {
  const whole = await readPage(context, pageId, reader, target);
  const { targetId } = whole;
  const rows = await selected(context)
    .where(and(eq(deliveries.pageId, pageId), eq(deliveries.targetId, targetId)))
    .orderBy(desc(deliveries.at), desc(deliveries.id))
    .limit(MOST_LISTED);
  return {
    targetId,
    isOwnTarget: targetId === whole.row.targetId,
    sentTo: await targetsSentTo(context, pageId),
    targetName: whole.rules.name,
    isPasted: isPasted(whole.rules.sending),
    ...(await possible(context, targetId)),
    stops: whatStops(whole).map((stop) => sayFinding(stop).sentence),
    deliveries: rows.map((row) => present(context, row)),
    plan,
    timeZone: whole.rules.timeZone,
  };
}

/** The targets that a page was sent to, by ID. */
async function targetsSentTo({ db }: Context, pageId: string): Promise<string[]> {
  const rows = await db
    .select({ targetId: deliveries.targetId })
    .from(deliveries)
    .where(eq(deliveries.pageId, pageId))
    .groupBy(deliveries.targetId);
  return rows.map(({ targetId }) => targetId);
}

export async function readDelivery(context: Context, id: string): Promise<Delivery> {
  const [row] = await selected(context).where(eq(deliveries.id, id));
  if (!row) throw notFound('What was sent');
  return present(context, row);
}

const selected = ({ db }: Context) =>
  db
    .select({ row: deliveries, by: people.name, rules: targets.rules })
    .from(deliveries)
    .leftJoin(people, eq(people.id, deliveries.personId))
    .leftJoin(targets, eq(targets.id, deliveries.targetId));

interface Selected {
  readonly row: DeliveryRow;
  readonly by: string | null;
  readonly rules: { readonly name: string } | null;
}

function present(context: Context, { row, by, rules }: Selected): Delivery {
  const frame = (which: 'sent' | 'found') => signedAddress(context, deliveryPath(row, which), 'look');
  return {
    id: row.id,
    pageId: row.pageId,
    targetId: row.targetId,
    targetName: rules?.name ?? 'a target that was removed',
    by: by ?? 'somebody who left',
    at: row.at.toISOString(),
    state: stateOf(row.state),
    title: row.title,
    address: row.address,
    foundAt: row.foundAt?.toISOString() ?? null,
    answered: row.answered,
    foundBytes: row.foundBytes,
    words: row.words,
    jobId: row.jobId,
    differences: (row.compared ?? []).map(said),
    frames: {
      sent: row.html === null ? null : frame('sent'),
      found: row.found === null ? null : frame('found'),
    },
  };
}

const said = (difference: Difference) => ({
  code: difference.code,
  isLost: isLost(difference),
  ...sayDifference(difference),
  spot: difference.spot,
});

function stateOf(state: string): Delivery['state'] {
  switch (state) {
    case 'handing':
    case 'ready':
    case 'out':
    case 'down':
      return state;
    default:
      return 'sending';
  }
}

/** Takes a page down where it was sent to. Its files stay, for other pages may show them. */
export async function takeDown(
  context: Context,
  id: string,
  person: Person,
  now: Date,
  signal: AbortSignal,
): Promise<Delivery> {
  const [row] = await context.db.select().from(deliveries).where(eq(deliveries.id, id));
  if (!row) throw notFound('What was sent');
  if (row.state === 'down') return readDelivery(context, id);
  if (row.state !== 'ready' && (row.state !== 'out' || !row.address))
    throw new HttpProblem(409, 'This page is not out, so there is nothing to take down.');
  const { rules } = await readTarget(context, row.targetId);
  assertMaySend(rules, person);
  if (row.address) await takeDownAt(context, row.targetId, rules, row.address, signal);
  await context.db.transaction(async (tx) => {
    // What was sent there before stood at the same address.
    const there = and(eq(deliveries.pageId, row.pageId), eq(deliveries.targetId, row.targetId));
    const isOut = and(there, inArray(deliveries.state, ['out', 'ready']));
    const out = await tx.select({ id: deliveries.id }).from(deliveries).where(isOut);
    await tx.update(deliveries).set({ state: 'down', words: '' }).where(isOut);
    await withdrawPublic(
      tx,
      out.map((one) => one.id),
      now,
    );
    const detail = `from ${rules.name}`;
    await writeAudit(tx, { person, what: 'taken-down', subject: row.title, detail }, now);
  });
  return readDelivery(context, id);
}

async function takeDownAt(
  context: Context,
  targetId: string,
  rules: HouseRules,
  address: string,
  signal: AbortSignal,
): Promise<void> {
  const way = await wayOf(context, targetId, rules, signal);
  try {
    await way.takeDown(address);
  } finally {
    await way.close?.();
  }
}

/** The code of a sending, as it is pasted. */
export async function codeOf({ db }: Context, id: string): Promise<{ readonly html: string }> {
  const [row] = await db.select({ html: deliveries.html }).from(deliveries).where(eq(deliveries.id, id));
  if (!row?.html) throw notFound('What was sent');
  return { html: row.html };
}

/** Says where a page was pasted, which is out there from then on. */
export async function sayPasted(
  context: Context,
  id: string,
  address: string,
  person: Person,
  now: Date,
): Promise<void> {
  const { db } = context;
  const [row] = await db.select().from(deliveries).where(eq(deliveries.id, id));
  if (!row) throw notFound('What was sent');
  assertMaySend((await readTarget(context, row.targetId)).rules, person);
  if (row.state === 'out' && row.address === address) return;
  if (row.state !== 'ready' && row.state !== 'out')
    throw new HttpProblem(409, 'This page is not ready to be pasted, so it stands nowhere yet.');
  await db.transaction(async (tx) => {
    const change = {
      state: 'out',
      address,
      words: '',
      found: null,
      foundAt: null,
      compared: [],
      answered: '',
      foundBytes: null,
    };
    await tx.update(deliveries).set(change).where(eq(deliveries.id, id));
    await writeAudit(tx, { person, what: 'pasted', subject: row.title, detail: `at ${address}` }, now);
  });
}

/** How a page stands where it was sent to: what readers miss there, and why it could not be read back. */
interface StandingSent {
  readonly lost: readonly Difference[];
  readonly words: string;
}

/** The newest sending of each of these pages that is out, by page. */
export async function standingSent(
  { db }: Context,
  pageIds: readonly string[],
): Promise<ReadonlyMap<string, StandingSent>> {
  if (pageIds.length === 0) return new Map();
  const rows = await db
    .select({ pageId: deliveries.pageId, compared: deliveries.compared, words: deliveries.words })
    .from(deliveries)
    .where(and(inArray(deliveries.pageId, [...pageIds]), eq(deliveries.state, 'out'), isNewest(db)))
    .orderBy(asc(deliveries.at));
  const standing = new Map<string, StandingSent>();
  // One page may be out at several targets.
  for (const { pageId, compared, words } of rows) {
    const { lost = [], words: others = '' } = standing.get(pageId) ?? {};
    standing.set(pageId, { lost: [...lost, ...(compared ?? []).filter(isLost)], words: words || others });
  }
  return standing;
}

/** Whether nothing was sent of the page since, to the same target. */
export function isNewest(db: Queries) {
  const later = alias(deliveries, 'later');
  const isLater = and(
    eq(later.pageId, deliveries.pageId),
    eq(later.targetId, deliveries.targetId),
    gt(later.at, deliveries.at),
    // One that did not come there yet stands nowhere.
    inArray(later.state, ['handing', 'out', 'down']),
  );
  return notExists(db.select({ id: later.id }).from(later).where(isLater));
}
