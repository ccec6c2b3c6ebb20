import { and, desc, eq, gte, inArray, ne } from 'drizzle-orm';
import type { Person } from '#api/people.ts';
import type { Buy, Offers, Purchase } from '#api/purchases.ts';
import { sayAmount } from '#core/rights/offer.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { assets, held, jobs, people, purchases } from '../db/schema.ts';
import { addJob, assertMayOrder, goOnWithJob, type JobRow } from '../jobs/queue.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { findAsset, pieceName } from '../shelf/change.ts';
import { type AssetRow, presentAssets } from '../shelf/present.ts';
import { seen } from '../shelf/seen.ts';
import { offersOf, sellerOf } from './shops.ts';
import { assertMaySpend } from './spending.ts';

export const BUY = 'buy';
export type PurchaseRow = typeof purchases.$inferSelect;

/** What the original of a comp costs, and for what. */
export async function offersFor(context: Context, compId: string, signal: AbortSignal): Promise<Offers> {
  const comp = await findSold(context, compId);
  const seller = sellerOf(context, comp.label, signal);
  return { compId, agency: seller.source.name, offers: [...(await offersOf(seller))] };
}

/** A comp, or a picture of an agency whose licence can be bought anew. */
async function findSold(context: Context, id: string): Promise<AssetRow> {
  const row = await findAsset(context, id);
  if (row.licence !== 'comp' && !isRenewed(row))
    throw new HttpProblem(409, 'This is neither a comp nor a picture of an agency, so nobody sells it.');
  return row;
}

const isRenewed = ({ licence }: Pick<AssetRow, 'licence'>): boolean => licence === 'agency';

/**
 * Orders the original of a comp, or the licence of a bought picture anew: a row and a job, written together. The same wish again is
 * the same purchase; one comp is bought once, whoever asks, and a licence not twice at a time. Throws an HttpProblem where it may not be, or costs more by now.
 */
export async function beginPurchase(
  context: Context,
  wish: Buy,
  person: Person,
  now: Date,
  id: string,
  signal: AbortSignal,
): Promise<void> {
  const [known] = await context.db.select({ id: purchases.id }).from(purchases).where(eq(purchases.id, id));
  if (known) return;
  await assertMayOrder(context, person.id);
  const comp = seen(await findSold(context, wish.compId), person);
  const isRenewal = isRenewed(comp);
  const seller = sellerOf(context, comp.label, signal);
  const offer = (await offersOf(seller)).find((one) => one.id === wish.offer);
  if (!offer)
    throw new HttpProblem(409, 'The agency does not offer that any more. Look at what it offers now.');
  if (offer.amount > wish.amount)
    throw new HttpProblem(
      409,
      `It costs ${sayAmount(offer.amount, offer.currency)} by now, and not ${sayAmount(wish.amount, offer.currency)}. Nothing was bought.`,
    );
  await context.db.transaction(async (tx) => {
    await tx.select({ id: assets.id }).from(assets).where(eq(assets.id, comp.id)).for('update');
    const [other] = await tx
      .select({ id: purchases.id, name: people.name })
      .from(purchases)
      .leftJoin(people, eq(people.id, purchases.createdBy))
      .where(
        and(
          eq(purchases.compId, comp.id),
          eq(purchases.isRenewal, isRenewal),
          isRenewal ? inArray(purchases.state, ['ordering', 'paid']) : ne(purchases.state, 'refused'),
        ),
      );
    if (other?.id === id) return;
    if (other)
      throw new HttpProblem(
        409,
        `${other.name ?? 'Somebody'} ${isRenewal ? 'is renewing it just now' : 'has bought it already'}. It is not bought a second time.`,
      );
    await assertMaySpend(tx, person, offer, now);
    const { amount, currency } = offer;
    await tx.insert(purchases).values({
      id,
      compId: comp.id,
      isRenewal,
      sourceId: seller.source.id,
      picture: seller.picture,
      offer,
      amount,
      currency,
      licensedTo: wish.licensedTo,
      state: 'ordering',
      createdBy: person.id,
      createdAt: now,
    });
    const title = `${isRenewal ? 'Renewing' : 'Buying'} ${comp.label.title || comp.stem}`;
    await addJob({ db: tx }, { id, kind: BUY, title, input: {}, personId: person.id }, now);
    const detail = `for ${sayAmount(amount, currency)}, licensed to ${wish.licensedTo}`;
    await writeAudit(tx, { person, what: 'bought', subject: pieceName(comp), detail }, now);
  });
}

export async function readPurchase({ db }: Context, id: string): Promise<PurchaseRow> {
  const [row] = await db.select().from(purchases).where(eq(purchases.id, id));
  if (!row) throw notFound('This purchase');
  return row;
}

const SHOWN_DAYS = 60;
const DAY_MILLIS = 86_400_000;
const MOST_SHOWN = 200;

/** The purchases of the last two months, newest first. */
export async function recentPurchases(context: Context, person: Person, now: Date): Promise<Purchase[]> {
  const rows = await context.db
    .select()
    .from(purchases)
    .where(gte(purchases.createdAt, new Date(now.getTime() - SHOWN_DAYS * DAY_MILLIS)))
    .orderBy(desc(purchases.createdAt), desc(purchases.id))
    .limit(MOST_SHOWN);
  return presentPurchases(context, rows, person);
}

export async function presentPurchases(
  context: Context,
  rows: readonly PurchaseRow[],
  person: Person,
): Promise<Purchase[]> {
  if (rows.length === 0) return [];
  const ids = rows.flatMap(({ compId, originalId }) => (originalId ? [compId, originalId] : [compId]));
  const [pieces, buyers, work] = await Promise.all([
    context.db.select().from(held).where(inArray(held.id, ids)),
    context.db
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(
        inArray(
          people.id,
          rows.map(({ createdBy }) => createdBy),
        ),
      ),
    context.db
      .select()
      .from(jobs)
      .where(
        inArray(
          jobs.id,
          rows.map(({ id }) => id),
        ),
      ),
  ]);
  const shown = new Map((await presentAssets(context, pieces, person)).map((asset) => [asset.id, asset]));
  const names = new Map(buyers.map(({ id, name }) => [id, name]));
  const jobOf = new Map(work.map((job) => [job.id, job]));
  return rows.flatMap((row) => {
    const comp = shown.get(row.compId);
    if (!comp) return [];
    const job = jobOf.get(row.id);
    const isOpen = row.state === 'ordering' || row.state === 'paid';
    return [
      {
        id: row.id,
        state: row.state,
        halted: isOpen && (job?.state === 'failed' || job?.state === 'stopped'),
        words: sayWhere(row, job),
        comp,
        isRenewal: row.isRenewal,
        original: (row.originalId ? shown.get(row.originalId) : null) ?? null,
        offer: row.offer,
        licensedTo: row.licensedTo,
        receipt: row.receipt,
        by: names.get(row.createdBy) ?? 'Somebody',
        at: row.createdAt.toISOString(),
        replacedAt: row.replacedAt?.toISOString() ?? null,
        pages: row.pages,
      },
    ];
  });
}

function sayWhere(row: PurchaseRow, job: JobRow | undefined): string {
  switch (row.state) {
    case 'refused':
      return 'The agency does not sell it like this. Nothing was paid.';
    case 'done':
      if (row.isRenewal) return 'Its term goes on.';
      return 'The original stands in the place of the comp.';
    case 'to-compare':
      return 'The original is on the shelf. It is not of the shape of its comp, or looks otherwise: compare them.';
    case 'ordering':
    case 'paid':
      if (job && job.state !== 'done' && job.words !== '') return job.words;
      return row.isRenewal ? 'It is being renewed.' : 'It is being bought.';
  }
}

/** Lets a purchase go on that halted: the same order is put again, and is not paid for twice. */
export async function goOnBuying(context: Context, id: string): Promise<void> {
  await readPurchase(context, id);
  await goOnWithJob(context, id);
}
