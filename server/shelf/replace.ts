import { and, asc, desc, eq, gt, inArray, sql } from 'drizzle-orm';
import * as v from 'valibot';
import type { OwnWords } from '#api/assets.ts';
import type { Person } from '#api/people.ts';
import type { Step } from '#api/progress.ts';
import { PageDocSchema } from '#core/page/model.ts';
import { withReplaced } from '#core/page/replace.ts';
import { ownWordsOf } from '#core/page/replacing.ts';
import { fromStored, STORED, toStored } from '#core/stored.ts';
import { justDone, writeActivity } from '../activity.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { activity, assets, keptParts, pages, placements } from '../db/schema.ts';
import { isSame } from '../is-same.ts';
import { indexPlacements, maybeDoc } from '../pages/store.ts';
import { HttpProblem } from '../problem.ts';
import { pieceName } from './change.ts';
import { anyAsset } from './put-away.ts';

export const REPLACED = 'replaced everywhere';

/** The pages on which a piece has words of its own, by their titles. One that cannot be read has none. */
export async function pagesWithOwnWords({ db }: Context, assetId: string): Promise<OwnWords> {
  const rows = await db
    .selectDistinct({ id: pages.id, title: pages.title, doc: pages.doc })
    .from(placements)
    .innerJoin(pages, eq(placements.pageId, pages.id))
    .where(eq(placements.assetId, assetId))
    .orderBy(asc(pages.title));
  return rows.flatMap(({ id, title, doc }) => {
    const page = maybeDoc(doc);
    const words = page ? ownWordsOf(page, assetId) : { alt: false, caption: false };
    return words.alt || words.caption ? [{ id, title, ...words }] : [];
  });
}

/** What a replacement did: how many pages changed, and the moment that names it when it is taken back. */
export interface Replaced {
  readonly pages: number;
  readonly at: Date;
}

/**
 * Puts one piece in the place of another on every page at once, however many there are: placements keep their width,
 * margins, words and links; trays and wants follow. The other is thrown away (and can be brought back). One step: all
 * pages or none. Asked again after a lost line, it answers what it did. `onStep` is told of each page that was written; none
 * of it stands before the last.
 */
export async function replaceEverywhere(
  context: Context,
  oldId: string,
  newId: string,
  person: Person,
  now: Date,
  onStep: (step: Step) => void = () => {},
): Promise<Replaced> {
  if (oldId === newId) throw new HttpProblem(409, 'A piece is not replaced by itself.');
  const [old, fresh] = [await anyAsset(context, oldId), await anyAsset(context, newId)];
  const done = await replacedBefore(context, oldId, newId, person, now);
  if (done) return done;
  if (fresh.deletedAt)
    throw new HttpProblem(409, 'The piece to take its place was thrown away. Bring it back first.');
  let changed = 0;
  await context.db.transaction(async (tx) => {
    changed = 0;
    await tx
      .select({ id: assets.id })
      .from(assets)
      .where(inArray(assets.id, [oldId, newId]))
      .orderBy(asc(assets.id))
      .for('update');
    await assertNotReplaced(tx, oldId, newId);
    const of = await tx.$count(pages, inArray(pages.id, pagesOf(tx, oldId)));
    for await (const row of pagesWith(tx, oldId)) {
      const doc = maybeDoc(row.doc);
      if (!doc)
        throw new HttpProblem(
          409,
          `“${row.title}” cannot be read as a page any more, so the piece stays everywhere. Nothing was changed.`,
        );
      const after = withReplaced(doc, oldId, newId);
      if (after === doc) continue;
      await tx
        .update(pages)
        .set({ doc: after, version: row.version + 1, updatedAt: now, updatedBy: person.id })
        .where(eq(pages.id, row.id));
      await indexPlacements(tx, row.id, after);
      const change = {
        what: REPLACED,
        before: toStored(STORED.page, doc),
        after: toStored(STORED.page, after),
      };
      await writeActivity(tx, { personId: person.id, subject: 'page', subjectId: row.id, ...change }, now);
      changed += 1;
      // A page that has it on its tray or in a want alone is not among those that were counted.
      onStep({ done: changed, of: Math.max(of, changed) });
    }
    await replaceInParts(tx, oldId, newId, person, now);
    await tx.update(assets).set({ deletedAt: now }).where(eq(assets.id, oldId));
    const change = {
      what: REPLACED,
      before: { deletedAt: old.deletedAt },
      after: { deletedAt: now, replacedBy: newId, pages: changed },
    };
    await writeActivity(tx, { personId: person.id, subject: 'asset', subjectId: oldId, ...change }, now);
    await writeAudit(
      tx,
      { person, what: 'replaced', subject: pieceName(old), detail: `by ${pieceName(fresh)}` },
      now,
    );
  });
  return { pages: changed, at: now };
}

/** Whoever swaps the same piece by another at the same time is told, instead of being told that it was done. */
async function assertNotReplaced(tx: Queries, oldId: string, newId: string): Promise<void> {
  const [old] = await tx.select({ deletedAt: assets.deletedAt }).from(assets).where(eq(assets.id, oldId));
  if (!old?.deletedAt) return;
  const [last] = await tx
    .select({ after: activity.after })
    .from(activity)
    .where(and(eq(activity.subject, 'asset'), eq(activity.subjectId, oldId), eq(activity.what, REPLACED)))
    .orderBy(desc(activity.id))
    .limit(1);
  const said = v.safeParse(ReplacedSchema, last?.after);
  if (!said.success || said.output.replacedBy === newId) return;
  const [other] = await tx
    .select({ title: assets.title, stem: assets.stem, extension: assets.extension })
    .from(assets)
    .where(eq(assets.id, said.output.replacedBy));
  throw new HttpProblem(
    409,
    `Somebody put ${other ? pieceName(other) : 'another piece'} in its place meanwhile. Nothing was changed; replace that one, if you still want to.`,
  );
}

/** What is kept to stand on many pages names the new piece as well, or it would bring the old one back. */
async function replaceInParts(
  tx: Queries,
  oldId: string,
  newId: string,
  person: Person,
  now: Date,
): Promise<void> {
  const rows = await tx
    .select()
    .from(keptParts)
    .where(sql`${keptParts.doc} like ${`%"${oldId}"%`}`)
    .orderBy(asc(keptParts.id))
    .for('update');
  for (const row of rows) {
    const doc = maybeDoc(row.doc);
    const after = doc ? withReplaced(doc, oldId, newId) : null;
    if (!doc || !after || after === doc) continue;
    const part = { doc: after, version: row.version + 1, updatedAt: now, updatedBy: person.id };
    await tx.update(keptParts).set(part).where(eq(keptParts.id, row.id));
    const change = {
      what: REPLACED,
      before: toStored(STORED.page, doc),
      after: toStored(STORED.page, after),
    };
    await writeActivity(tx, { personId: person.id, subject: 'part', subjectId: row.id, ...change }, now);
  }
}

export const ReplacedSchema = v.object({ replacedBy: v.string(), pages: v.optional(v.number(), 0) });

async function replacedBefore(
  { db }: Context,
  oldId: string,
  newId: string,
  person: Person,
  now: Date,
): Promise<Replaced | undefined> {
  const deed = { personId: person.id, subject: 'asset', subjectId: oldId, what: REPLACED } as const;
  const last = await justDone(db, deed, now);
  const said = v.safeParse(ReplacedSchema, last?.after);
  return last && said.success && said.output.replacedBy === newId
    ? { pages: said.output.pages, at: last.at }
    : undefined;
}

const pagesOf = (tx: Queries, assetId: string) =>
  tx.select({ id: placements.pageId }).from(placements).where(eq(placements.assetId, assetId));

const AT_A_TIME = 100;

/** Every page that names a piece anywhere, locked, a few at a time: on the sheet, on the tray, in a want. */
async function* pagesWith(tx: Queries, assetId: string): AsyncIterable<typeof pages.$inferSelect> {
  for (let after = ''; ; ) {
    const rows = await tx
      .select()
      .from(pages)
      .where(and(gt(pages.id, after), sql`${pages.doc} like ${`%"${assetId}"%`}`))
      .orderBy(asc(pages.id))
      .limit(AT_A_TIME)
      .for('update');
    yield* rows;
    const last = rows.at(-1);
    if (!last || rows.length < AT_A_TIME) return;
    after = last.id;
  }
}

/**
 * Takes a replacement back: every page as it stood before, and the piece back on the shelf. Refused as a whole when
 * somebody has changed one of the pages since, so that nobody's work is lost.
 */
export async function takeReplacementBack(
  context: Context,
  oldId: string,
  at: Date,
  person: Person,
  now: Date,
): Promise<number> {
  const steps = await context.db
    .select({ id: activity.id, subject: activity.subject, subjectId: activity.subjectId })
    .from(activity)
    .where(and(eq(activity.at, at), eq(activity.personId, person.id), eq(activity.what, REPLACED)));
  const ofPages = steps.filter(({ subject }) => subject === 'page');
  await context.db.transaction(async (tx) => {
    for (const { id, subjectId } of ofPages) {
      const [row] = await tx.select().from(pages).where(eq(pages.id, subjectId)).for('update');
      const [step] = await tx.select().from(activity).where(eq(activity.id, id));
      if (!row || !step) continue;
      if (!isSame(row.doc, fromStored(STORED.page, step.after)))
        throw new HttpProblem(
          409,
          `“${row.title}” was changed since, so the replacement stays. Put the other piece in its place by hand.`,
        );
      const doc = v.parse(PageDocSchema, fromStored(STORED.page, step.before));
      await tx
        .update(pages)
        .set({ doc, version: row.version + 1, updatedAt: now, updatedBy: person.id })
        .where(eq(pages.id, row.id));
      await indexPlacements(tx, row.id, doc);
    }
    for (const { id, subjectId } of steps.filter(({ subject }) => subject === 'part'))
      await takeBackInPart(tx, subjectId, id, person, now);
    await tx.update(assets).set({ deletedAt: null }).where(eq(assets.id, oldId));
    const change = { what: 'took a replacement back', before: null, after: null };
    await writeActivity(tx, { personId: person.id, subject: 'asset', subjectId: oldId, ...change }, now);
  });
  return ofPages.length;
}

/** A part that was changed since stays as it is: its pages say which piece stands on them. */
async function takeBackInPart(
  tx: Queries,
  partId: string,
  stepId: number,
  person: Person,
  now: Date,
): Promise<void> {
  const [row] = await tx.select().from(keptParts).where(eq(keptParts.id, partId)).for('update');
  const [step] = await tx.select().from(activity).where(eq(activity.id, stepId));
  if (!row || !step || !isSame(row.doc, fromStored(STORED.page, step.after))) return;
  const doc = v.parse(PageDocSchema, fromStored(STORED.page, step.before));
  const part = { doc, version: row.version + 1, updatedAt: now, updatedBy: person.id };
  await tx.update(keptParts).set(part).where(eq(keptParts.id, partId));
}
