import { createHash } from 'node:crypto';
import { and, asc, eq, isNull, lte, sql } from 'drizzle-orm';
import type { Person } from '#api/people.ts';
import { withoutPiece } from '#core/page/without-piece.ts';
import { type Afterwards, dayIn } from '#core/rights/terms.ts';
import { STORED, toStored } from '#core/stored.ts';
import { writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { assets, held, keptParts, pages, people, placements, targets } from '../db/schema.ts';
import { indexPlacements, maybeDoc } from '../pages/store.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { maybeRules } from '../rules/store.ts';
import { pieceName } from '../shelf/change.ts';
import type { AssetRow } from '../shelf/present.ts';
import { replaceEverywhere } from '../shelf/replace.ts';
import { beginPurchase } from './purchases.ts';

const TAKEN_OFF = 'taken off as its term ended';
/** The calendar is ahead of UTC by this much where a day begins first (Kiribati). */
const FIRST_ZONE_MILLIS = 14 * 60 * 60 * 1000;
const AT_A_TIME = 50;
const RENEWED_WITHIN_MILLIS = 7 * 24 * 60 * 60 * 1000;

/**
 * Does what was decided beforehand for pieces whose last day is over where they stand: takes them off their pages, or puts
 * another in their place; what is to be renewed is ordered on the last day. A day is over in the time zone of the target. Each page is a step of its own, done once; what was
 * broken off goes on at the next call. Answers how many pages changed.
 */
export async function doOnTheDay(context: Context, now: Date): Promise<number> {
  let changed = 0;
  for (const row of await overPieces(context, now)) {
    const { afterwards } = row.label.terms;
    if (afterwards.do === 'unsaid') continue;
    const person = await whoDecided(context, afterwards);
    const stands = await standsOn(context, row.id);
    if (!person) continue;
    if (afterwards.do === 'renew') {
      // On the last day itself, wherever it begins first: afterwards there would be a gap.
      if (stands.some(({ timeZone }) => dayIn(timeZone, now) >= row.lastDay))
        await renew(context, row, afterwards, person, now);
      continue;
    }
    const over = stands.filter(({ timeZone }) => dayIn(timeZone, now) > row.lastDay);
    if (over.length === 0) continue;
    changed +=
      afterwards.do === 'take-off'
        ? await takeOff(context, row, over, person, now)
        : await putInPlace(context, row, afterwards.piece, person, now);
  }
  return changed;
}

function overPieces({ db }: Context, now: Date): Promise<readonly AssetRow[]> {
  const today = dayIn('UTC', new Date(now.getTime() + FIRST_ZONE_MILLIS));
  const tooLate = dayIn('UTC', new Date(now.getTime() - RENEWED_WITHIN_MILLIS));
  return db
    .select()
    .from(held)
    .where(
      and(
        isNull(held.deletedAt),
        lte(held.lastDay, today),
        sql`json_value(${held.label}, '$.terms.afterwards.do') <> 'unsaid'`,
        // What could not be renewed for so long is somebody's to see to, and keeps none of the others from their turn.
        sql`(json_value(${held.label}, '$.terms.afterwards.do') <> 'renew' or ${held.lastDay} >= ${tooLate})`,
        sql`exists (select 1 from ${placements} where ${placements.assetId} = ${held.id})`,
      ),
    )
    .orderBy(asc(held.lastDay), asc(held.id))
    .limit(AT_A_TIME);
}

async function whoDecided(
  { db }: Context,
  { personId }: Exclude<Afterwards, { do: 'unsaid' }>,
): Promise<Person | null> {
  const [row] = await db.select().from(people).where(eq(people.id, personId));
  return row ? presentPerson(row) : null;
}

interface Stands {
  readonly pageId: string;
  readonly timeZone: string;
}

async function standsOn({ db }: Context, assetId: string): Promise<readonly Stands[]> {
  const rows = await db
    .selectDistinct({ pageId: pages.id, rules: targets.rules })
    .from(placements)
    .innerJoin(pages, eq(pages.id, placements.pageId))
    .innerJoin(targets, eq(targets.id, pages.targetId))
    .where(eq(placements.assetId, assetId))
    .orderBy(asc(pages.id));
  return rows.map(({ pageId, rules }) => ({ pageId, timeZone: maybeRules(rules)?.timeZone ?? 'UTC' }));
}

/**
 * Orders the renewal that was decided, once for each last day: whoever asks again asks for the same purchase. What is dearer by now,
 * is sold no more or goes over what the person may spend is left, and the Desk says that its term is over.
 */
async function renew(
  context: Context,
  row: AssetRow,
  { offer, amount }: Extract<Afterwards, { do: 'renew' }>,
  person: Person,
  now: Date,
): Promise<void> {
  const wish = { compId: row.id, offer, amount, licensedTo: row.label.licensedTo || person.name };
  const id = renewalId(row);
  try {
    await beginPurchase(context, wish, person, now, id, AbortSignal.timeout(PATIENCE_MILLIS));
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error;
    context.log.warn({ err: error, asset: row.id }, 'what was to be renewed could not be');
  }
}

const PATIENCE_MILLIS = 30_000;

/** The same for the same piece and last day, in the form of a UUID (RFC 9562, version 8). */
function renewalId({ id, lastDay }: AssetRow): string {
  const hex = createHash('sha256').update(`renewal of ${id} after ${lastDay}`).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

async function takeOff(
  context: Context,
  row: AssetRow,
  over: readonly Stands[],
  person: Person,
  now: Date,
): Promise<number> {
  let changed = 0;
  for (const { pageId } of over)
    await context.db.transaction(async (tx) => {
      const [page] = await tx.select().from(pages).where(eq(pages.id, pageId)).for('update');
      const doc = page ? maybeDoc(page.doc) : null;
      const after = doc ? withoutPiece(doc, row.id) : null;
      if (!page || !doc || !after || after === doc) return;
      const version = page.version + 1;
      await tx
        .update(pages)
        .set({ doc: after, version, updatedAt: now, updatedBy: person.id })
        .where(eq(pages.id, pageId));
      await indexPlacements(tx, pageId, after);
      const change = {
        what: TAKEN_OFF,
        before: toStored(STORED.page, doc),
        after: toStored(STORED.page, after),
      };
      await writeActivity(tx, { personId: person.id, subject: 'page', subjectId: pageId, ...change }, now);
      const detail = `${pieceName(row)}: its last day was ${row.lastDay}`;
      await writeAudit(
        tx,
        { person, what: 'taken-off', subject: page.title || 'Untitled page', detail },
        now,
      );
      changed += 1;
    });
  await context.db.transaction((tx) => takeOffParts(tx, row.id, person, now));
  return changed;
}

/** What is kept to stand on many pages would bring it back. */
async function takeOffParts(tx: Queries, assetId: string, person: Person, now: Date): Promise<void> {
  const rows = await tx
    .select()
    .from(keptParts)
    .where(sql`${keptParts.doc} like ${`%"${assetId}"%`}`)
    .for('update');
  for (const row of rows) {
    const doc = maybeDoc(row.doc);
    const after = doc ? withoutPiece(doc, assetId) : null;
    if (!doc || !after || after === doc) continue;
    const part = { doc: after, version: row.version + 1, updatedAt: now, updatedBy: person.id };
    await tx.update(keptParts).set(part).where(eq(keptParts.id, row.id));
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'part',
        subjectId: row.id,
        what: TAKEN_OFF,
        before: toStored(STORED.page, doc),
        after: toStored(STORED.page, after),
      },
      now,
    );
  }
}

/** What cannot take its place any more leaves it where it is: the Desk says that its term is over. */
async function putInPlace(
  context: Context,
  row: AssetRow,
  freshId: string,
  person: Person,
  now: Date,
): Promise<number> {
  const [fresh] = await context.db.select({ id: assets.id }).from(assets).where(eq(assets.id, freshId));
  if (!fresh) return 0;
  try {
    return (await replaceEverywhere(context, row.id, freshId, person, now)).pages;
  } catch (error) {
    if (!(error instanceof HttpProblem)) throw error;
    context.log.warn({ err: error, asset: row.id }, 'what was to take the place of a piece could not');
    return 0;
  }
}
