import { and, asc, count, desc, eq, gt, inArray, isNull, like, sql } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import * as v from 'valibot';
import {
  MOST_PAGES_LISTED,
  type NewPage,
  type Page,
  type PageAddressesSchema,
  type SavedPageSchema,
} from '#api/pages.ts';
import type { Person } from '#api/people.ts';
import { partsOn } from '#core/page/kept-parts.ts';
import { linkedPageIds, usesOf } from '#core/page/linked.ts';
import { emptyPage, type PageDoc, PageDocSchema } from '#core/page/model.ts';
import type { LinkedPages } from '#core/page/page-address.ts';
import { viewKey } from '#core/page/picture.ts';
import type { Piece } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import { rulesOnPage } from '#core/page/translation.ts';
import { underWords } from '#core/page/under-words.ts';
import { placementsOf } from '#core/page/walk.ts';
import { STORED, toStored } from '#core/stored.ts';
import { writeActivity, writeAutosave } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { held, pageParts, pages, people, placements, targets } from '../db/schema.ts';
import { textsOf } from '../films/captions.ts';
import { lightsOf } from '../imaging/lights.ts';
import { isSame } from '../is-same.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { maybeRules, readRules } from '../rules/store.ts';
import { type AssetRow, hostsFor, pieceOf, presentAssets, viewAddress } from '../shelf/present.ts';
import { type Asker, seenBy } from '../shelf/seen.ts';

type PageRow = typeof pages.$inferSelect;

/** A page with its target and the rows of all its pieces. */
export interface WholePage {
  readonly row: PageRow;
  readonly doc: PageDoc;
  /** The target for which it is looked at: its own, or another that it is sent to as well. */
  readonly targetId: string;
  readonly rules: HouseRules;
  readonly targetVersion: number;
  readonly assets: readonly AssetRow[];
  readonly pieces: ReadonlyMap<string, Piece>;
  /** The pages that it links to. */
  readonly pages: LinkedPages;
}

/** Reads a page whole, for somebody: pieces that they may not see are missing from it. Its document is checked against the schema here too: what does not fit is never shown as if it did. */
export async function readPage(
  context: Context,
  id: string,
  asker: Asker,
  /** Another target than its own, by whose rules it is looked at. */
  targetId?: string,
): Promise<WholePage> {
  const [found] = await context.db
    .select()
    .from(pages)
    .innerJoin(targets, targetId === undefined ? eq(pages.targetId, targets.id) : eq(targets.id, targetId))
    .where(eq(pages.id, id));
  if (!found) throw notFound('This page');
  const doc = docOf(found.pages);
  if (!doc) throw new HttpProblem(500, NOT_READABLE);
  const rows = await assetsOf(context, [doc], asker);
  return {
    row: found.pages,
    doc,
    targetId: found.targets.id,
    rules: rulesOnPage(readRules(found.targets.rules), id, doc),
    targetVersion: found.targets.version,
    assets: rows,
    pieces: await piecesOf(context, rows, [doc]),
    pages: await linkedFrom(context, [doc]),
  };
}

/** The pieces of pages as `core` knows them; how light they are only where words stand over them. */
async function piecesOf(
  context: Context,
  rows: readonly AssetRow[],
  docs: readonly PageDoc[],
): Promise<ReadonlyMap<string, Piece>> {
  const hosts = await hostsFor(context, rows);
  const pieces = new Map(rows.map((row) => [row.id, pieceOf(row, hosts)]));
  const worded = new Set(docs.flatMap((doc) => [...underWords(doc, pieces)]));
  await Promise.all(
    rows.map(async (row) => {
      const piece = pieces.get(row.id);
      if (piece?.kind === 'film') pieces.set(row.id, { ...piece, texts: await textsOf(context, row) });
      if (!piece || !worded.has(row.id)) return;
      // A picture that cannot be read any more keeps no page from opening: only the contrast stays unsaid.
      const lights = await lightsOf(context, row).catch((error: unknown) => {
        context.log.warn({ err: error, asset: row.id }, 'a piece under words cannot be looked at');
        return null;
      });
      if (lights) pieces.set(row.id, { ...piece, lights });
    }),
  );
  return pieces;
}

const NOT_READABLE =
  'What is stored of this page does not fit what a page is. It is kept as it stands, and not shown.';

/** Documents as they were checked, by their page and version; some kilobytes each. To check all 50 pages of a full house took 23 ms each time the Desk was opened. */
const checkedDocs = new LRUCache<string, PageDoc>({ max: 2000 });

/** The document of a page, checked once for each of its versions; null for one that does not fit. */
function docOf({ id, version, updatedAt, doc }: PageRow): PageDoc | null {
  const key = `${id} ${version} ${updatedAt.getTime()}`;
  const before = checkedDocs.get(key);
  if (before) return before;
  const read = maybeDoc(doc);
  if (read) checkedDocs.set(key, read);
  return read;
}

/** A stored document, or null for one that does not fit. */
export function maybeDoc(stored: unknown): PageDoc | null {
  const read = v.safeParse(PageDocSchema, stored);
  return read.success ? read.output : null;
}

/** A page that is listed, but cannot be opened: its document or its target does not fit any more. */
interface BrokenPage {
  readonly row: PageRow;
  readonly fault: string;
}

export interface AllPages {
  readonly wholes: readonly WholePage[];
  readonly broken: readonly BrokenPage[];
}

interface Listed {
  /** Words that the title has to hold, in any order; all pages without one. */
  readonly words?: string;
}

/**
 * Pages with their targets, last changed first, as many as are listed. One that does not fit keeps none of the others from
 * being listed.
 */
export async function readPages(
  context: Context,
  asker: Asker,
  { words = '' }: Listed = {},
): Promise<AllPages> {
  const found = await withTargets(context)
    .where(titled(words))
    .orderBy(desc(pages.updatedAt), asc(pages.id))
    .limit(MOST_PAGES_LISTED);
  return readWhole(context, found, asker);
}

/** How many pages there are whose titles hold these words. */
export async function countPages(context: Context, words: string): Promise<number> {
  const [counted] = await context.db.select({ count: count() }).from(pages).where(titled(words));
  return counted?.count ?? 0;
}

/** A few whole pages at a time are held while all are gone through. */
const READ_AT_ONCE = 50;

/** Every page there is, by ID, a few at a time: what goes through all of them knows no limit. */
export async function* everyPage(context: Context): AsyncGenerator<AllPages> {
  for (let last = ''; ; ) {
    const found = await withTargets(context)
      .where(gt(pages.id, last))
      .orderBy(asc(pages.id))
      .limit(READ_AT_ONCE);
    const end = found.at(-1);
    if (!end) return;
    last = end.pages.id;
    yield await readWhole(context, found, 'house');
  }
}

const MOST_WORDS = 10;

/** Each word somewhere in the title, whatever its case and accents: so are titles compared by the database. */
function titled(words: string) {
  const sought = words.split(/\s+/).filter(Boolean).slice(0, MOST_WORDS);
  return and(...sought.map((word) => like(pages.title, `%${word.replace(/[\\%_]/g, '\\$&')}%`)));
}

/** All pages that a piece stands on, with their targets. */
export async function readPagesWith(context: Context, assetId: string): Promise<AllPages> {
  const uses = context.db
    .select({ id: placements.pageId })
    .from(placements)
    .where(eq(placements.assetId, assetId));
  return readWhole(
    context,
    await withTargets(context).where(inArray(pages.id, uses)).orderBy(asc(pages.id)),
    'house',
  );
}

const withTargets = (context: Context) =>
  context.db.select().from(pages).innerJoin(targets, eq(pages.targetId, targets.id));

async function readWhole(
  context: Context,
  found: readonly { readonly pages: PageRow; readonly targets: typeof targets.$inferSelect }[],
  asker: Asker,
): Promise<AllPages> {
  const rulesOf = new Map(found.map(({ targets: { id, rules } }) => [id, maybeRules(rules)] as const));
  const read = found.map((one) => ({
    ...one,
    doc: docOf(one.pages),
    rules: rulesOf.get(one.targets.id) ?? null,
  }));
  const docs = read.flatMap(({ doc }) => doc ?? []);
  const rows = await assetsOf(context, docs, asker);
  const pieces = await piecesOf(context, rows, docs);
  const linked = await linkedFrom(context, docs);
  return {
    wholes: read.flatMap(({ pages: row, targets: { version }, doc, rules }) =>
      doc && rules
        ? [
            {
              row,
              doc,
              rules: rulesOnPage(rules, row.id, doc),
              targetId: row.targetId,
              targetVersion: version,
              assets: rows,
              pieces,
              pages: linked,
            },
          ]
        : [],
    ),
    broken: read.flatMap(({ pages: row, doc, rules }) =>
      doc && rules
        ? []
        : [{ row, fault: doc ? 'The House rules of its target do not fit any more.' : NOT_READABLE }],
    ),
  };
}

/** Where a page stands on its site, from its document; null where nobody has said so. */
const addressInDoc = sql<string | null>`json_value(${pages.doc}, '$.address')`;

/** The pages that documents link to, as links need them. */
async function linkedFrom(context: Context, docs: readonly PageDoc[]): Promise<LinkedPages> {
  const ids = [...new Set(docs.flatMap((doc) => [...linkedPageIds(doc)]))];
  if (ids.length === 0) return new Map();
  const found = await addressed(context).where(inArray(pages.id, ids));
  return new Map(found.map((page) => [page.id, addressOf(page)]));
}

const languageInDoc = sql<string | null>`json_value(${pages.doc}, '$.language')`;

const addressed = ({ db }: Context) =>
  db
    .select({
      id: pages.id,
      targetId: pages.targetId,
      title: pages.title,
      address: addressInDoc,
      language: languageInDoc,
      rules: targets.rules,
    })
    .from(pages)
    .innerJoin(targets, eq(pages.targetId, targets.id));

function addressOf({ rules, address, language, ...page }: Awaited<ReturnType<typeof addressed>>[number]) {
  return { ...page, address: address ?? '', language: language ?? maybeRules(rules)?.language ?? '' };
}

/** Where every page stands, by title. */
export async function pageAddresses(context: Context): Promise<v.InferOutput<typeof PageAddressesSchema>> {
  const found = await addressed(context).orderBy(asc(pages.title), asc(pages.id)).limit(MOST_ADDRESSES);
  return found.map(addressOf);
}

/** So many pages are offered for links; who has more writes the address. */
const MOST_ADDRESSES = 5000;

async function assetsOf(
  context: Context,
  docs: readonly PageDoc[],
  asker: Asker,
): Promise<readonly AssetRow[]> {
  const ids = [...new Set(docs.flatMap((doc) => [...doc.tray, ...usesOf(doc).map((use) => use.asset)]))];
  if (ids.length === 0) return [];
  return context.db
    .select()
    .from(held)
    .where(and(inArray(held.id, ids), isNull(held.deletedAt), seenBy(context, asker, held)));
}

/** What a state of a page shows: its pieces, and those of them that it prepares by itself. */
export async function presentState(
  context: Context,
  doc: PageDoc,
  person: Person,
): Promise<Pick<Page, 'pieces' | 'ownViews'>> {
  const assets = await assetsOf(context, [doc], person);
  return {
    pieces: await presentAssets(context, assets, person),
    ownViews: ownViews(context, { doc, assets }),
  };
}

export async function presentPage(context: Context, whole: WholePage, person: Person): Promise<Page> {
  return {
    id: whole.row.id,
    version: whole.row.version,
    doc: whole.doc,
    target: { id: whole.row.targetId, version: whole.targetVersion, rules: whole.rules },
    pieces: await presentAssets(context, whole.assets, person),
    ownViews: ownViews(context, whole),
    updatedAt: whole.row.updatedAt.toISOString(),
    updatedBy: await nameOf(context, whole.row.updatedBy),
    due: whole.row.due,
  };
}

/** Placements that are prepared by themselves, each as it looks before it is cut to a shape. */
function ownViews(
  context: Context,
  { doc, assets: rows }: Pick<WholePage, 'doc' | 'assets'>,
): Record<string, string> {
  const views = placementsOf(doc).flatMap(({ asset, prep }) => {
    const row = rows.find(({ id }) => id === asset);
    return row && prep ? [[viewKey(asset, pieceOf(row), prep), viewAddress(context, { ...row, prep })]] : [];
  });
  return Object.fromEntries(views);
}

async function nameOf(context: Context, personId: string): Promise<string> {
  const [row] = await context.db.select({ name: people.name }).from(people).where(eq(people.id, personId));
  return row?.name ?? 'Somebody';
}

export async function createPage(
  context: Context,
  wish: NewPage,
  person: Person,
  now: Date,
  id: string,
): Promise<string> {
  const [target] = await context.db
    .select({ id: targets.id })
    .from(targets)
    .where(eq(targets.id, wish.targetId));
  if (!target) throw notFound('This target');
  const doc = emptyPage(wish.title, wish.wants);
  await context.db.transaction(async (tx) => {
    const [begun] = await tx.insert(pages).ignore().values({
      id,
      targetId: wish.targetId,
      title: wish.title,
      doc,
      due: wish.due,
      createdAt: now,
      updatedAt: now,
      updatedBy: person.id,
    });
    // The very wish sent again after a lost line has begun it already.
    if (begun.affectedRows === 0) return;
    await writeActivity(
      tx,
      {
        personId: person.id,
        subject: 'page',
        subjectId: id,
        what: 'began the page',
        before: null,
        after: toStored(STORED.page, doc),
      },
      now,
    );
  });
  return id;
}

/**
 * Saves a page on the version it was changed from, with its index of placements, in one step. When somebody
 * saved meanwhile nothing is written, and the answer (412) carries the state that stands. The very save that stands
 * already, sent again after a lost line, is answered as it was the first time.
 */
export async function savePage(
  context: Context,
  id: string,
  version: number,
  doc: PageDoc,
  person: Person,
  now: Date,
): Promise<SavedPage> {
  const isSaved = await context.db.transaction(async (tx) => {
    const [before] = await tx.select().from(pages).where(eq(pages.id, id)).for('update');
    if (!before) throw notFound('This page');
    if (before.version !== version) return false;
    await tx
      .update(pages)
      .set({ doc, title: doc.title, version: version + 1, updatedAt: now, updatedBy: person.id })
      .where(eq(pages.id, id));
    await indexPlacements(tx, id, doc);
    await writeAutosave(
      tx,
      {
        personId: person.id,
        subject: 'page',
        subjectId: id,
        what: 'worked on the page',
        before: toStored(STORED.page, before.doc),
        after: toStored(STORED.page, doc),
      },
      now,
    );
    return true;
  });
  if (isSaved) return { version: version + 1, updatedAt: now.toISOString() };
  return alreadySaved(context, id, version, doc, person);
}

type SavedPage = v.InferOutput<typeof SavedPageSchema>;

/** What stands, where it is this very save; throws the clash otherwise. */
async function alreadySaved(
  context: Context,
  id: string,
  version: number,
  doc: PageDoc,
  person: Person,
): Promise<SavedPage> {
  const { row, doc: current } = await readPage(context, id, person);
  const isOwn = row.version === version + 1 && row.updatedBy === person.id;
  const updatedAt = row.updatedAt.toISOString();
  if (isOwn && isSame(current, doc)) return { version: row.version, updatedAt };
  const updatedBy = await nameOf(context, row.updatedBy);
  throw new HttpProblem(
    412,
    `${updatedBy} saved this page while you worked on it. Nothing of either is lost: put both together, or choose.`,
    { current: { version: row.version, doc: current, updatedBy, updatedAt } },
  );
}

/** Writes down which pieces and parts stand on a page. */
export async function indexPlacements(db: Queries, pageId: string, doc: PageDoc): Promise<void> {
  await db.delete(placements).where(eq(placements.pageId, pageId));
  const rows = usesOf(doc).map((placement, ordinal) => ({
    pageId,
    placementId: placement.id,
    assetId: placement.asset,
    ordinal,
  }));
  if (rows.length > 0) await db.insert(placements).values(rows);
  await db.delete(pageParts).where(eq(pageParts.pageId, pageId));
  const parts = [...partsOn(doc)].map((partId) => ({ pageId, partId }));
  if (parts.length > 0) await db.insert(pageParts).values(parts);
}
