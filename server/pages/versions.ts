import { and, count, desc, eq } from 'drizzle-orm';
import type * as v from 'valibot';
import {
  type KeptState,
  MOST_VERSIONS_LISTED,
  type PageVersion,
  type PageVersionListSchema,
} from '#api/pages.ts';
import type { Person } from '#api/people.ts';
import type { PageDoc } from '#core/page/model.ts';
import type { Context } from '../context.ts';
import { pages, pageVersions, people } from '../db/schema.ts';
import { isSame } from '../is-same.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { maybeDoc, presentState } from './store.ts';

/** Why a state of a page is kept: it was given a name, or it went out. */
type Why = { readonly name: string } | { readonly sent: string };

interface StateToKeep {
  readonly id: string;
  readonly pageId: string;
  readonly doc: PageDoc;
  /** Null where Placard itself keeps it, as an export from the command line. */
  readonly personId: string | null;
}

/**
 * Keeps a state of a page and answers the ID of its version. The state that was kept last is not kept twice: it gets the
 * name, or goes out once more. One that has another name already is kept under both.
 */
export async function keepVersion({ db }: Context, state: StateToKeep, why: Why, now: Date): Promise<string> {
  return db.transaction(async (tx) => {
    // One at a time for a page: two that send at once would keep the same state twice.
    await tx.select({ id: pages.id }).from(pages).where(eq(pages.id, state.pageId)).for('update');
    const [last] = await tx
      .select()
      .from(pageVersions)
      .where(eq(pageVersions.pageId, state.pageId))
      .orderBy(desc(pageVersions.createdAt), desc(pageVersions.id))
      .limit(1);
    const said = 'sent' in why ? { sent: why.sent, sentAt: now } : { name: why.name };
    const mayTake = last && (!('name' in why) || last.name === '' || last.name === why.name);
    if (mayTake && isSame(last.doc, state.doc)) {
      await tx.update(pageVersions).set(said).where(eq(pageVersions.id, last.id));
      return last.id;
    }
    await tx
      .insert(pageVersions)
      .ignore()
      .values({
        id: state.id,
        pageId: state.pageId,
        doc: state.doc,
        createdAt: now,
        createdBy: state.personId,
        ...said,
      });
    return state.id;
  });
}

/** Names the state that a page is in, which has to be the one that was looked at. */
export async function nameVersion(
  context: Context,
  named: Omit<StateToKeep, 'doc'> & { readonly version: number; readonly name: string },
  now: Date,
): Promise<PageVersion> {
  const [page] = await context.db.select().from(pages).where(eq(pages.id, named.pageId));
  if (!page) throw notFound('This page');
  if (page.version !== named.version)
    throw new HttpProblem(
      412,
      'The page was saved anew before it got this name. Nothing was named: look at it once more, and name what stands now.',
    );
  const id = await keepVersion(context, { ...named, doc: page.doc }, { name: named.name }, now);
  const row = await versionRow(context, named.pageId, id);
  return present(row.version, row.name);
}

export async function listVersions(
  { db }: Context,
  pageId: string,
): Promise<v.InferOutput<typeof PageVersionListSchema>> {
  const isOfPage = eq(pageVersions.pageId, pageId);
  const rows = await db
    .select({ ...SUMMARY, by: people.name })
    .from(pageVersions)
    .leftJoin(people, eq(people.id, pageVersions.createdBy))
    .where(isOfPage)
    .orderBy(desc(pageVersions.createdAt), desc(pageVersions.id))
    .limit(MOST_VERSIONS_LISTED);
  const [counted] = await db.select({ count: count() }).from(pageVersions).where(isOfPage);
  return { versions: rows.map(({ by, ...row }) => present(row, by)), count: counted?.count ?? 0 };
}

/** A kept state with what it shows. One that does not fit what a page is any more is not shown as if it did. */
export async function readVersion(
  context: Context,
  pageId: string,
  versionId: string,
  person: Person,
): Promise<KeptState> {
  const { version, name } = await versionRow(context, pageId, versionId);
  const doc = maybeDoc(version.doc);
  if (!doc)
    throw new HttpProblem(
      500,
      'What is stored of this version does not fit what a page is. It is kept as it stands, and not shown.',
    );
  return { version: present(version, name), doc, ...(await presentState(context, doc, person)) };
}

const { id, name, sent, sentAt, createdAt, createdBy } = pageVersions;
/** All of a version but its document. */
const SUMMARY = { id, name, sent, sentAt, createdAt, createdBy };

type Summary = Pick<typeof pageVersions.$inferSelect, keyof typeof SUMMARY>;

async function versionRow({ db }: Context, pageId: string, versionId: string) {
  const [row] = await db
    .select({ version: pageVersions, name: people.name })
    .from(pageVersions)
    .leftJoin(people, eq(people.id, pageVersions.createdBy))
    .where(and(eq(pageVersions.pageId, pageId), eq(pageVersions.id, versionId)));
  if (!row) throw notFound('This version');
  return row;
}

function present(row: Summary, by: string | null): PageVersion {
  return {
    id: row.id,
    name: row.name,
    sent: row.sent,
    sentAt: row.sentAt?.toISOString() ?? null,
    keptAt: row.createdAt.toISOString(),
    keptBy: by ?? (row.createdBy === null ? 'Placard' : 'Somebody'),
  };
}
