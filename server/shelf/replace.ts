import { and, eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import { PageDocSchema } from '#core/page/model.ts';
import { withReplaced } from '#core/page/replace.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { activity, assets, pages } from '../db/schema.ts';
import { indexPlacements, readPages } from '../pages/store.ts';
import { Refusal } from '../problem.ts';
import { anyAsset } from './put-away.ts';

const REPLACED = 'replaced everywhere';

/**
 * Puts one piece in the place of another on every page at once: placements keep their width, margins, words and
 * links; trays and wants follow. The other is thrown away (and can be brought back). One step: all pages or none.
 * Answers how many pages changed; `now` names it when it is taken back.
 */
export async function replaceEverywhere(
  context: Context,
  oldId: string,
  newId: string,
  person: Person,
  now: Date,
): Promise<number> {
  if (oldId === newId) throw new Refusal(409, 'A piece is not replaced by itself.');
  const [old, fresh] = [await anyAsset(context, oldId), await anyAsset(context, newId)];
  if (fresh.deletedAt)
    throw new Refusal(409, 'The piece to take its place was thrown away. Bring it back first.');
  const wholes = await readPages(context);
  let changed = 0;
  await context.db.transaction(async (tx) => {
    for (const { row, doc } of wholes) {
      const after = withReplaced(doc, oldId, newId);
      if (after === doc) continue;
      const [result] = await tx
        .update(pages)
        .set({ doc: after, version: row.version + 1, updatedAt: now, updatedBy: person.id })
        .where(and(eq(pages.id, row.id), eq(pages.version, row.version)));
      if (result.affectedRows === 0)
        throw new Refusal(
          409,
          `Somebody is working on “${row.title}” just now. Nothing was changed; try again.`,
        );
      await indexPlacements(tx, row.id, after);
      await writeActivity(
        tx,
        {
          personId: person.id,
          subject: 'page',
          subjectId: row.id,
          what: REPLACED,
          before: doc,
          after,
        },
        now,
      );
      changed += 1;
    }
    await tx.update(assets).set({ deletedAt: now }).where(eq(assets.id, oldId));
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'asset',
        subjectId: oldId,
        what: REPLACED,
        before: { deletedAt: old.deletedAt },
        after: { deletedAt: now, replacedBy: newId },
      },
      now,
    );
  });
  return changed;
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
    .select()
    .from(activity)
    .where(and(eq(activity.at, at), eq(activity.personId, person.id), eq(activity.what, REPLACED)));
  const ofPages = steps.filter(({ subject }) => subject === 'page');
  await context.db.transaction(async (tx) => {
    for (const step of ofPages) {
      const [row] = await tx.select().from(pages).where(eq(pages.id, step.subjectId)).for('update');
      if (!row) continue;
      if (JSON.stringify(row.doc) !== JSON.stringify(step.after))
        throw new Refusal(
          409,
          `“${row.title}” was changed since, so the replacement stays. Put the other piece in its place by hand.`,
        );
      const doc = v.parse(PageDocSchema, step.before);
      await tx
        .update(pages)
        .set({ doc, version: row.version + 1, updatedAt: now, updatedBy: person.id })
        .where(eq(pages.id, row.id));
      await indexPlacements(tx, row.id, doc);
    }
    await tx.update(assets).set({ deletedAt: null }).where(eq(assets.id, oldId));
  });
  return ofPages.length;
}
