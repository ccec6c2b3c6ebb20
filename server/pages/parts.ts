import { asc, count, eq, inArray } from 'drizzle-orm';
import type * as v from 'valibot';
import {
  type ChangePartSchema,
  MOST_PARTS_LISTED,
  type NewPartSchema,
  type Part,
  type PartChangedSchema,
  type PartListSchema,
} from '#api/parts.ts';
import type { Person } from '#api/people.ts';
import { isInPart } from '#core/page/blocks/kept-part/schema.ts';
import { isAsKept, withPartChanged } from '#core/page/kept-parts.ts';
import type { PageDoc } from '#core/page/model.ts';
import { walkPage } from '#core/page/walk.ts';
import { STORED, toStored } from '#core/stored.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { keptParts, pageParts, pages, people } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { indexPlacements, maybeDoc, presentState } from './store.ts';

type NewPart = v.InferOutput<typeof NewPartSchema>;

/** What is kept, as a page of its own: so it is checked, and brought up to date, as pages are. */
const docOf = ({ name, blocks }: NewPart): PageDoc => ({ title: name, wants: [], tray: [], blocks });

/** Keeps a part. The very wish sent again after a lost line has kept it already. */
export async function keepPart(
  { db }: Context,
  id: string,
  wish: NewPart,
  personId: string,
  now: Date,
): Promise<void> {
  const part = { id, name: wish.name, doc: docOf(wish), updatedAt: now, updatedBy: personId };
  await db.insert(keptParts).ignore().values(part);
}

export async function listParts({ db }: Context): Promise<v.InferOutput<typeof PartListSchema>> {
  const rows = await db
    .select({
      id: keptParts.id,
      name: keptParts.name,
      updatedAt: keptParts.updatedAt,
      updatedBy: people.name,
      pages: count(pageParts.pageId),
    })
    .from(keptParts)
    .leftJoin(pageParts, eq(pageParts.partId, keptParts.id))
    .leftJoin(people, eq(people.id, keptParts.updatedBy))
    .groupBy(keptParts.id, people.name)
    .orderBy(asc(keptParts.name), asc(keptParts.id))
    .limit(MOST_PARTS_LISTED);
  const [counted] = await db.select({ count: count() }).from(keptParts);
  return {
    parts: rows.map(({ updatedAt, updatedBy, ...part }) => ({
      ...part,
      updatedAt: updatedAt.toISOString(),
      updatedBy: updatedBy ?? 'Somebody',
    })),
    count: counted?.count ?? 0,
  };
}

export async function readPart(context: Context, id: string, person: Person): Promise<Part> {
  const [row] = await context.db.select().from(keptParts).where(eq(keptParts.id, id));
  if (!row) throw notFound('This part');
  const doc = maybeDoc(row.doc);
  if (!doc)
    throw new HttpProblem(
      500,
      'What is stored of this part does not fit what a part is. It is kept as it stands, and not shown.',
    );
  const { pieces } = await presentState(context, doc, person);
  const blocks = doc.blocks.filter(isInPart);
  const found = await pagesWith(context, id);
  return {
    id,
    name: row.name,
    version: row.version,
    blocks,
    pieces,
    pages: found.map(({ id: pageId, title, doc: page }) => ({
      id: pageId,
      title,
      isOwn: [...walkPage(page)].some(
        (block) => block.type === 'keptPart' && block.attrs.part === id && !isAsKept(block, blocks),
      ),
    })),
  };
}

async function pagesWith({ db }: Pick<Context, 'db'>, partId: string) {
  const rows = await db
    .select({ id: pages.id, title: pages.title, doc: pages.doc })
    .from(pageParts)
    .innerJoin(pages, eq(pages.id, pageParts.pageId))
    .where(eq(pageParts.partId, partId))
    .orderBy(asc(pages.title), asc(pages.id));
  return rows.flatMap((row) => {
    const doc = maybeDoc(row.doc);
    return doc ? [{ ...row, doc }] : [];
  });
}

/**
 * Changes a part, and with it every page on which it stands as it was kept: all of them or none. A page that changed it for
 * itself keeps what it has. Whoever has one of the pages open gets it as any change of another person.
 */
export async function changePart(
  { db }: Context,
  id: string,
  version: number,
  wish: v.InferOutput<typeof ChangePartSchema>,
  personId: string,
  now: Date,
): Promise<v.InferOutput<typeof PartChangedSchema>> {
  return db.transaction(async (tx) => {
    const [row] = await tx.select().from(keptParts).where(eq(keptParts.id, id)).for('update');
    if (!row) throw notFound('This part');
    if (row.version !== version)
      throw new HttpProblem(
        412,
        'Somebody changed this part meanwhile. Nothing was changed: look at it once more.',
      );
    const before = maybeDoc(row.doc)?.blocks ?? [];
    const part = {
      name: wish.name,
      doc: docOf(wish),
      version: version + 1,
      updatedAt: now,
      updatedBy: personId,
    };
    await tx.update(keptParts).set(part).where(eq(keptParts.id, id));
    const on = await tx.select({ id: pageParts.pageId }).from(pageParts).where(eq(pageParts.partId, id));
    const rows =
      on.length === 0
        ? []
        : await tx
            .select()
            .from(pages)
            .where(
              inArray(
                pages.id,
                on.map((one) => one.id),
              ),
            )
            .orderBy(asc(pages.id))
            .for('update');
    let [changed, own] = [0, 0];
    for (const page of rows) {
      const doc = maybeDoc(page.doc);
      if (!doc) continue;
      const next = withPartChanged(doc, id, before, wish.blocks);
      own += next.own > 0 ? 1 : 0;
      if (next.page === doc) continue;
      changed += 1;
      await tx
        .update(pages)
        .set({ doc: next.page, version: page.version + 1, updatedAt: now, updatedBy: personId })
        .where(eq(pages.id, page.id));
      await indexPlacements(tx, page.id, next.page);
      await writeActivity(
        tx,
        {
          personId,
          subject: 'page',
          subjectId: page.id,
          what: 'changed a part everywhere',
          before: toStored(STORED.page, doc),
          after: toStored(STORED.page, next.page),
        },
        now,
      );
    }
    return { version: version + 1, changed, own };
  });
}
