import { and, desc, eq, getViewSelectedFields, gt, isNull, ne } from 'drizzle-orm';
import { may, type Person } from '#api/people.ts';
import type { Context } from '../context.ts';
import { held, people } from '../db/schema.ts';
import { type AllPages, readPages, type WholePage } from '../pages/store.ts';
import { piecesSaidOtherwise } from '../rights/differences.ts';
import { recentPurchases } from '../rights/purchases.ts';
import { haltedRuns } from '../runs/runs.ts';
import { standingSent } from '../sending/deliveries.ts';
import { failedPlans } from '../sending/plans.ts';
import { thumbAddress } from '../shelf/present.ts';
import { seenBy } from '../shelf/seen.ts';
import type { OpenErrand } from './given.ts';
import { pageErrands } from './page-errands.ts';

const NO_PAGES: AllPages = { wholes: [], broken: [] };
const NEW_DAYS = 7;
const HANDED_IN_LIMIT = 500;
const DAY_MILLIS = 24 * 60 * 60 * 1000;

/** The pages that a person works on; none for whoever only hands in. */
export const pagesOf = (context: Context, person: Person): Promise<AllPages> =>
  may(person.role, 'edit-pages') ? readPages(context, person) : Promise.resolve(NO_PAGES);

/** What can be given to somebody: what waits of pages, and what was handed in. */
export async function givableErrands(context: Context, person: Person): Promise<readonly OpenErrand[]> {
  const { wholes } = await readPages(context, person);
  return [...(await ofPages(context, wholes)), ...(await handedIn(context, person, new Date()))];
}

async function ofPages(context: Context, wholes: readonly WholePage[]): Promise<readonly OpenErrand[]> {
  const ids = new Set(wholes.flatMap(({ assets }) => assets.map(({ id }) => id)));
  const otherwise = await piecesSaidOtherwise(context, [...ids]);
  const pageIds = wholes.map(({ row }) => row.id);
  const [sent, failed] = [await standingSent(context, pageIds), await failedPlans(context, pageIds)];
  return byDue(wholes).flatMap((whole) => pageErrands(context, whole, otherwise, sent, failed, new Date()));
}

/** All that waits for a person, or for anybody who may do it. */
export async function openErrands(
  context: Context,
  wholes: readonly WholePage[],
  person: Person,
): Promise<readonly OpenErrand[]> {
  const now = new Date();
  return [
    ...(await ofPages(context, wholes)),
    ...(await handedIn(context, person, now)),
    ...(await runErrands(context, person, now)),
    ...(await purchaseErrands(context, person, now)),
  ];
}

/** Pages that are due first come first; those without a date come last. */
function byDue(wholes: readonly WholePage[]): readonly WholePage[] {
  const key = (whole: WholePage) => whole.row.due ?? '9999';
  return [...wholes].sort((one, other) => key(one).localeCompare(key(other)));
}

async function runErrands(context: Context, person: Person, now: Date): Promise<readonly OpenErrand[]> {
  const runs = await haltedRuns(context, person.id, now);
  return runs.map(({ id, title, words, done, of }) => ({
    id: `run-${id}`,
    kind: 'run',
    before: '',
    subject: title,
    after: `halted after ${done} of ${of}.`,
    detail: words,
    due: null,
    action: 'Look at it',
    address: `/shelf/runs/${id}`,
    thumb: null,
    count: of - done,
  }));
}

/** What was bought and waits for somebody: to be compared with its comp, or to go on. */
async function purchaseErrands(context: Context, person: Person, now: Date): Promise<readonly OpenErrand[]> {
  if (!may(person.role, 'say-rights')) return [];
  const purchases = await recentPurchases(context, person, now);
  return purchases
    .filter(({ state, halted }) => state === 'to-compare' || halted)
    .map(({ id, comp, halted, words }) => ({
      id: `purchase-${id}`,
      kind: 'rights',
      before: halted ? 'The purchase of' : 'The original of',
      subject: comp.label.title || comp.stem,
      after: halted ? 'halted.' : 'has to be compared with its comp.',
      detail: words,
      due: null,
      action: halted ? 'Look at it' : 'Compare them',
      address: halted ? `/rights?matter=comp&place=anywhere&piece=${comp.id}` : `/rights?compare=${id}`,
      thumb: comp.thumb,
      count: null,
    }));
}

/** What contributors handed in lately that nobody has cleared. */
async function handedIn(context: Context, person: Person, now: Date): Promise<readonly OpenErrand[]> {
  if (!may(person.role, 'say-rights')) return [];
  const rows = await context.db
    .select({ asset: getViewSelectedFields(held), name: people.name })
    .from(held)
    .innerJoin(people, eq(held.createdBy, people.id))
    .where(
      and(
        eq(people.role, 'contributor'),
        ne(people.id, person.id),
        eq(held.licence, 'unknown'),
        isNull(held.deletedAt),
        seenBy(context, person, held),
        gt(held.createdAt, new Date(now.getTime() - NEW_DAYS * DAY_MILLIS)),
      ),
    )
    .orderBy(desc(held.createdAt))
    .limit(HANDED_IN_LIMIT);
  const [first] = rows;
  if (!first) return [];
  return [
    {
      id: 'handed-in',
      kind: 'handed-in',
      before: `${first.name} handed in`,
      subject: rows.length === 1 ? 'a piece' : sayMany(rows.length),
      after: 'that nobody has cleared.',
      detail: 'Nothing says yet what may be done with them.',
      due: null,
      action: 'Clear them',
      address: '/shelf?licence=unknown',
      thumb: rows.length === 1 ? thumbAddress(context, first.asset) : null,
      count: rows.length === 1 ? null : rows.length,
    },
  ];
}

const sayMany = (count: number) =>
  count < HANDED_IN_LIMIT ? `${count} pieces` : `${HANDED_IN_LIMIT} pieces or more`;
