import { randomUUID } from 'node:crypto';
import { mkdir, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { and, desc, eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import { maybeStatement, statements } from '#core/gather/statement.ts';
import { AS_IT_CAME, wholeSize } from '#core/media/recipe.ts';
import { isUnderMark } from '#core/media/under-mark.ts';
import { isSameShape } from '#core/page/replacing.ts';
import { isLabelField, type Label, type LabelPatch, withPatch } from '#core/rights/label.ts';
import { originalLabel, renewedTerms, sayAmount, sayOffer } from '#core/rights/offer.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { activity, assets, held, people, pictures, purchases } from '../db/schema.ts';
import { takeIn } from '../gather/take-in.ts';
import { lightsOf } from '../imaging/lights.ts';
import { isSame } from '../is-same.ts';
import type { JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { retry } from '../outbound/retry.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { today } from '../rules/today.ts';
import { derivedColumns } from '../shelf/derived.ts';
import { freeStemLike, nameInTurn } from '../shelf/names.ts';
import { type AssetRow, pieceOf } from '../shelf/present.ts';
import { REPLACED, type Replaced, ReplacedSchema, replaceEverywhere } from '../shelf/replace.ts';
import { type PurchaseRow, readPurchase } from './purchases.ts';
import { sellerOf } from './shops.ts';

const PATIENCE = { tries: 4, firstWaitMillis: 1000, longestWaitMillis: 30_000 };
const FETCH_MILLIS = 10 * 60 * 1000;
/**
 * Buys the original of a comp, and puts it in its place: ordered under the purchase's own key, fetched, labelled, put in place. What is
 * renewed is ordered likewise, and its term goes on.
 * Each step is kept before the next begins, so that a process that is killed anywhere goes on where it was; the order is put
 * again then, which the agency takes for the same one.
 */
export async function buy(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const purchase = await readPurchase(context, job.id);
  try {
    await tools.report(0, STEPS, 'Ordering it');
    const paid = await ordered(context, purchase, tools);
    if (!paid) return { words: 'The agency does not sell it like this. Nothing was paid.' };
    if (paid.isRenewal) return await renewed(context, paid, tools);
    await tools.report(1, STEPS, 'Fetching the original');
    const original = await arrived(context, paid, tools);
    await tools.report(2, STEPS, 'Putting it in place');
    const words = await inPlace(context, paid, original, new Date());
    await tools.report(STEPS, STEPS, words);
    return { words };
  } catch (error) {
    if (!(error instanceof OutboundProblem) || tools.signal.aborted) throw error;
    return { state: 'failed', words: sayHalted(purchase, error) };
  }
}

/** Lets the term go on, once: the label and the purchase are written together. */
async function renewed(context: Context, row: PurchaseRow, tools: JobTools): Promise<JobResult> {
  const now = new Date();
  const day = await today(context, row.createdAt);
  await context.db.transaction(async (tx) => {
    const [open] = await tx.select().from(purchases).where(eq(purchases.id, row.id)).for('update');
    if (open?.state !== 'paid') return;
    const piece = await anyPiece(tx, row.compId);
    const { offer, licensedTo } = row;
    const said = { ...piece.label, licensedTo, terms: renewedTerms(piece.label.terms, offer, day) };
    await tx
      .update(assets)
      .set({
        label: said,
        version: piece.version + 1,
        ...derivedColumns(said, piece.stem, piece.originalName, piece.drafted),
      })
      .where(eq(assets.id, piece.id));
    await tx.update(purchases).set({ state: 'done', originalId: piece.id }).where(eq(purchases.id, row.id));
    const change = { what: 'renewed it', before: { label: piece.label }, after: { label: said } };
    await writeActivity(
      tx,
      { personId: row.createdBy, subject: 'asset', subjectId: piece.id, ...change },
      now,
    );
  });
  const words = 'Its term goes on';
  await tools.report(STEPS, STEPS, words);
  return { words };
}

const STEPS = 3;

function sayHalted({ state }: PurchaseRow, { message }: OutboundProblem): string {
  return state === 'ordering'
    ? `${message} Whether it was paid for is not known. Let it go on: the same order is put again, and paid for once.`
    : `${message} It is paid for. Let it go on when the agency answers again.`;
}

/** The purchase once it is paid for; null where the agency refuses. */
async function ordered(context: Context, row: PurchaseRow, tools: JobTools): Promise<PurchaseRow | null> {
  if (row.state !== 'ordering') return row;
  const { shop, tools: ofShop } = sellerOf(
    context,
    (await anyPiece(context.db, row.compId)).label,
    tools.signal,
  );
  const wish = { picture: row.picture, offer: row.offer.id, licensedTo: row.licensedTo };
  const order = await retry(PATIENCE, tools.signal, () => shop.order(row.id, wish, ofShop));
  const next = order
    ? ({ state: 'paid', receipt: order.receipt.slice(0, 200), file: order.file } as const)
    : ({ state: 'refused' } as const);
  await context.db.update(purchases).set(next).where(eq(purchases.id, row.id));
  return order ? { ...row, ...next } : null;
}

/** The original on the shelf, with its label. */
async function arrived(context: Context, row: PurchaseRow, tools: JobTools): Promise<string> {
  if (row.originalId) return row.originalId;
  const folder = join(context.config.dataFolder, 'uploads');
  await mkdir(folder, { recursive: true });
  const path = join(folder, `buy-${randomUUID()}`);
  try {
    await retry(PATIENCE, tools.signal, () =>
      context.outbound.save(row.file, path, {
        limits: { bytes: context.config.uploadLimitBytes, millis: FETCH_MILLIS },
        accept: 'image/*',
        signal: tools.signal,
      }),
    );
    const comp = await anyPiece(context.db, row.compId);
    const { row: original } = await takeIn(context, { ...comingOf(row, comp), path }, new Date());
    await label(context, row, original.id, await today(context, row.createdAt), new Date());
    return original.id;
  } finally {
    await rm(path, { force: true });
  }
}

function comingOf(row: PurchaseRow, comp: AssetRow) {
  const say = (about: Parameters<typeof maybeStatement>[1], value: string) =>
    maybeStatement('agency', about, value);
  return {
    name: `${comp.originalName.replace(/-comp(?=\.|$)/i, '').replace(/\.[^.]*$/, '')}.jpg`,
    personId: row.createdBy,
    folder: comp.folder,
    pageId: null,
    origin: {
      way: 'source',
      sourceId: row.sourceId,
      sourceKey: `${row.picture} original`,
      stamp: row.receipt,
      address: row.file,
      pageAddress: null,
      said: statements(
        say('source', comp.label.source),
        say('source-id', row.picture),
        say('price', sayAmount(row.amount, row.currency)),
        say('terms', sayOffer(row.offer)),
      ),
      decidedLicence: 'agency',
    },
  } as const;
}

/** All that was said of the comp goes over, as far as nobody has said it of the original; so do its name and what is done to it. */
function label(
  context: Context,
  row: PurchaseRow,
  originalId: string,
  day: string,
  now: Date,
): Promise<void> {
  return context.db.transaction(async (tx) => {
    await nameInTurn(tx);
    const [comp, original] = [await anyPiece(tx, row.compId), await anyPiece(tx, originalId)];
    const { offer, licensedTo } = row;
    const whole = originalLabel(comp.label, { offer, day, licensedTo });
    const said = withPatch(original.label, ofNobody(original, whole));
    const [stem, compStem] = await names(tx, comp, original);
    await tx
      .update(assets)
      .set({
        stem: compStem,
        version: comp.version + 1,
        ...derivedColumns(comp.label, compStem, comp.originalName, comp.drafted),
      })
      .where(eq(assets.id, comp.id));
    await tx
      .update(assets)
      .set({
        label: said,
        stem,
        drafted: [],
        version: original.version + 1,
        ...derivedColumns(said, stem, original.originalName, []),
      })
      .where(eq(assets.id, original.id));
    if (isSame(pieceOf(original).prep, AS_IT_CAME) && isShapeKept(comp, original))
      await tx
        .update(pictures)
        .set({ prep: comp.prep ?? null })
        .where(eq(pictures.assetId, original.id));
    await tx.update(purchases).set({ originalId }).where(eq(purchases.id, row.id));
    const change = { what: 'bought it', before: { label: original.label }, after: { label: said, stem } };
    await writeActivity(
      tx,
      { personId: row.createdBy, subject: 'asset', subjectId: original.id, ...change },
      now,
    );
  });
}

/** The rights of what was bought, and of the rest what no person said of it. */
const BOUGHT: ReadonlySet<string> = new Set([
  'source',
  'sourceAddress',
  'sourceId',
  'licence',
  'licenceAddress',
  'licensedTo',
  'decisions',
  'terms',
]);

function ofNobody(original: AssetRow, whole: Label): LabelPatch {
  const fields = Object.entries(whole).filter(
    ([field, value]) =>
      BOUGHT.has(field) ||
      (isLabelField(field) &&
        (original.drafted.includes(field) || isEmpty(original.label[field])) &&
        !isEmpty(value)),
  );
  return Object.fromEntries(fields);
}

function isEmpty(value: unknown): boolean {
  if (value === '' || (Array.isArray(value) && value.length === 0)) return true;
  return isSame(value, { kind: 'unsaid' }) || isSame(value, { x: 0.5, y: 0.5 });
}

/** The original takes the name, and the comp is called a comp from then on. */
async function names(tx: Queries, comp: AssetRow, original: AssetRow): Promise<readonly [string, string]> {
  if (comp.stem.endsWith('-comp')) return [original.stem, comp.stem];
  return [comp.stem, await freeStemLike(tx, `${comp.stem.slice(0, 70)}-comp`, comp.id)];
}

const isShapeKept = (comp: AssetRow, original: AssetRow) =>
  isSameShape(wholeSize(pieceOf(comp)), wholeSize(pieceOf(original)));

/** Puts the original in the comp's place where nobody has to compare them. Answers what was done, in words. */
async function inPlace(context: Context, row: PurchaseRow, originalId: string, now: Date): Promise<string> {
  const [comp, original] = [await anyPiece(context.db, row.compId), await anyPiece(context.db, originalId)];
  const isTheSame = isShapeKept(comp, original) && (await looksTheSame(context, comp, original));
  if (comp.deletedAt || isTheSame) {
    const placed = await putInPlace(context, row, originalId, await buyer(context, row), now).catch(
      async (error: unknown) => {
        // Somebody swapped the comp by hand meanwhile: what was bought is held, and theirs stands.
        if (!(error instanceof HttpProblem)) throw error;
        await context.db.update(purchases).set({ state: 'done', originalId }).where(eq(purchases.id, row.id));
        return null;
      },
    );
    if (!placed) return 'It is on the shelf. Another piece was put in the place of its comp meanwhile.';
    const { pages } = placed;
    return `It stands in the place of the comp on ${pages === 1 ? '1 page' : `${pages} pages`}.`;
  }
  await context.db.update(purchases).set({ state: 'to-compare' }).where(eq(purchases.id, row.id));
  return 'It is on the shelf, and has to be compared with its comp.';
}

/** Puts a bought original in its comp's place on every page at once; answers the first time again where it stands there already. */
export async function putInPlace(
  context: Context,
  row: PurchaseRow,
  originalId: string,
  person: Person,
  now: Date,
): Promise<Replaced> {
  const done =
    (await replacementOf(context, row.compId, originalId)) ??
    (await replaceEverywhere(context, row.compId, originalId, person, now));
  await context.db
    .update(purchases)
    .set({ state: 'done', originalId, replacedAt: done.at, pages: done.pages })
    .where(eq(purchases.id, row.id));
  return done;
}

/** How one piece took the place of another, as long as that stands. */
async function replacementOf({ db }: Context, oldId: string, newId: string): Promise<Replaced | null> {
  const [old] = await db.select({ deletedAt: assets.deletedAt }).from(assets).where(eq(assets.id, oldId));
  if (!old?.deletedAt) return null;
  const [last] = await db
    .select()
    .from(activity)
    .where(and(eq(activity.subject, 'asset'), eq(activity.subjectId, oldId), eq(activity.what, REPLACED)))
    .orderBy(desc(activity.id))
    .limit(1);
  const said = v.safeParse(ReplacedSchema, last?.after);
  return last && said.success && said.output.replacedBy === newId
    ? { pages: said.output.pages, at: last.at }
    : null;
}

async function looksTheSame(context: Context, comp: AssetRow, original: AssetRow): Promise<boolean> {
  return isUnderMark(await lightsOf(context, comp), await lightsOf(context, original));
}

async function anyPiece(db: Queries, id: string): Promise<AssetRow> {
  const [row] = await db.select().from(held).where(eq(held.id, id));
  if (!row) throw new HttpProblem(409, 'The comp was removed for good meanwhile.');
  return row;
}

async function buyer({ db }: Context, { createdBy }: PurchaseRow): Promise<Person> {
  const [row] = await db.select().from(people).where(eq(people.id, createdBy));
  if (!row) throw new HttpProblem(409, 'Whoever bought it is not known any more.');
  return presentPerson(row);
}
