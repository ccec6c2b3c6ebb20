import { and, eq } from 'drizzle-orm';
import * as v from 'valibot';
import { PageDocSchema } from '#core/page/model.ts';
import { withGathered } from '#core/page/replace.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { pages } from '../db/schema.ts';
import { notFound, Refusal } from '../problem.ts';
import { indexPlacements } from './store.ts';

const TRIES = 5;

/**
 * Puts pieces on a page's tray, the first of them into a want where one is named. Saved on whatever version stands:
 * it only adds, so an editor that is open meanwhile puts it together with its own by itself.
 */
export async function putOnTray(
  context: Context,
  pageId: string,
  assetIds: readonly string[],
  wantId: string | null,
  personId: string,
  now: Date,
): Promise<void> {
  for (let tries = 0; tries < TRIES; tries += 1) {
    const [row] = await context.db.select().from(pages).where(eq(pages.id, pageId));
    if (!row) throw notFound('This page');
    const doc = v.parse(PageDocSchema, row.doc);
    const after = withGathered(doc, assetIds, wantId);
    if (after === doc) return;
    const isWritten = await context.db.transaction(async (tx) => {
      const [result] = await tx
        .update(pages)
        .set({ doc: after, version: row.version + 1, updatedAt: now, updatedBy: personId })
        .where(and(eq(pages.id, pageId), eq(pages.version, row.version)));
      if (result.affectedRows === 0) return false;
      await indexPlacements(tx, pageId, after);
      await writeActivity(
        tx,
        { personId, subject: 'page', subjectId: pageId, what: 'gathered for it', before: doc, after },
        now,
      );
      return true;
    });
    if (isWritten) return;
  }
  throw new Refusal(
    409,
    'The page is being saved all the time just now. The piece is on the shelf; put it on the tray from there.',
  );
}
