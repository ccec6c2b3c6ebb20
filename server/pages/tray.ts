import { and, eq } from 'drizzle-orm';
import * as v from 'valibot';
import { type PageDoc, PageDocSchema } from '#core/page/model.ts';
import { withGathered, withoutGathered } from '#core/page/replace.ts';
import { STORED, toStored } from '#core/stored.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { pages } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { indexPlacements } from './store.ts';

const TRIES = 5;

/** Puts pieces on a page's tray, the first of them into a want where one is named. */
export function putOnTray(
  context: Context,
  pageId: string,
  assetIds: readonly string[],
  wantId: string | null,
  personId: string,
  now: Date,
): Promise<void> {
  return changeTray(context, pageId, (doc) => withGathered(doc, assetIds, wantId), personId, now);
}

/** Takes pieces off a page's tray again, as far as they do not stand on the sheet. */
export function takeOffTray(
  context: Context,
  pageId: string,
  assetIds: readonly string[],
  personId: string,
  now: Date,
): Promise<void> {
  return changeTray(context, pageId, (doc) => withoutGathered(doc, assetIds), personId, now);
}

/**
 * Saved on whatever version stands: it touches the tray and the wants alone, so an editor that is open meanwhile
 * puts it together with its own by itself.
 */
async function changeTray(
  context: Context,
  pageId: string,
  change: (doc: PageDoc) => PageDoc,
  personId: string,
  now: Date,
): Promise<void> {
  for (let tries = 0; tries < TRIES; tries += 1) {
    const [row] = await context.db.select().from(pages).where(eq(pages.id, pageId));
    if (!row) throw notFound('This page');
    const doc = v.parse(PageDocSchema, row.doc);
    const after = change(doc);
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
        {
          personId,
          subject: 'page',
          subjectId: pageId,
          what: 'gathered for it',
          before: toStored(STORED.page, doc),
          after: toStored(STORED.page, after),
        },
        now,
      );
      return true;
    });
    if (isWritten) return;
  }
  throw new HttpProblem(
    409,
    'The page is being saved all the time just now. The pieces are on the shelf; put them on the tray from there.',
  );
}
