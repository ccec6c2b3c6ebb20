import { and, asc, count, eq, inArray, isNotNull, like, lte, or, type SQL, sql } from 'drizzle-orm';
import type * as v from 'valibot';
import type { Reader } from '#api/people.ts';
import type { LedgerQuerySchema, LedgerRow } from '#api/rights.ts';
import { LICENCE_IDS, licenceTerms } from '#core/rights/licences.ts';
import type { Context } from '../context.ts';
import { assets, houseLicences, pages, pageVersions, placements } from '../db/schema.ts';
import { afterCursor, cursorAfter, inOrder, type ListOrder } from '../keyset.ts';
import type { AssetRow } from '../shelf/present.ts';
import { standing } from '../shelf/put-away.ts';
import { escapeLike, rowsOf } from '../shelf/query.ts';
import { underHouseLicence } from './house-licences.ts';

type Question = v.InferOutput<typeof LedgerQuerySchema>;

const AT_A_TIME = 100;
const DAY_MILLIS = 86_400_000;
const WITHOUT_CONSENT = ['missing', 'withdrawn'] as const;
const CLOSED = LICENCE_IDS.filter((id) => !licenceTerms(id).publish && id !== 'comp');
const CREDITED = LICENCE_IDS.filter((id) => licenceTerms(id).owesCredit === 'yes');

export interface LedgerAnswer {
  readonly rows: readonly AssetRow[];
  readonly cursor: string | null;
}

/** Answers the sentence of the Rights area on a day (YYYY-MM-DD): the next pieces of the standing shelf. */
export async function askLedger(
  context: Context,
  question: Question,
  today: string,
  reader: Reader,
): Promise<LedgerAnswer> {
  const filter = filterOf(context, question, today, reader);
  const order = ORDERS[question.order ?? 'soonest'];
  const after = question.cursor ? afterCursor(order, assets, question.cursor) : undefined;
  const ids = await context.db
    .select({ id: assets.id })
    .from(assets)
    .where(and(filter, after))
    .orderBy(...inOrder(order, assets))
    .limit(AT_A_TIME + 1);
  const rows = await rowsOf(
    context,
    ids.slice(0, AT_A_TIME).map(({ id }) => id),
  );
  const last = ids.length > AT_A_TIME ? rows.at(-1) : undefined;
  return { rows, cursor: last ? cursorAfter(order, last) : null };
}

/** How many pieces answer it. Apart from the pieces themselves, which are there long before all are counted. */
export async function countLedger(
  context: Context,
  question: Question,
  today: string,
  reader: Reader,
): Promise<number> {
  const [row] = await context.db
    .select({ n: count() })
    .from(assets)
    .where(filterOf(context, question, today, reader));
  return row?.n ?? 0;
}

const filterOf = (context: Context, question: Question, today: string, reader: Reader): SQL | undefined =>
  and(standing(context, reader), ...conditionsOf(context, question, today));

function conditionsOf(context: Context, question: Question, today: string): readonly (SQL | undefined)[] {
  const { licence = 'any', maker = '', source = '' } = question;
  return [
    matterIs(question, today),
    placeIs(context, question.place ?? 'pages'),
    licence === 'any' ? undefined : eq(assets.licence, licence),
    maker.trim() === '' ? undefined : like(assets.creator, `%${escapeLike(maker.trim())}%`),
    source.trim() === '' ? undefined : like(assets.source, `%${escapeLike(source.trim())}%`),
  ];
}

function matterIs({ matter = 'waits', within = '183' }: Question, today: string): SQL | undefined {
  const ends = lte(assets.lastDay, within === 'any' ? '9999-12-30' : dayAfter(today, Number(within)));
  switch (matter) {
    case 'waits':
      return or(
        ends,
        inArray(assets.consent, [...WITHOUT_CONSENT]),
        inArray(assets.licence, ['comp', ...CLOSED]),
        underHouseLicence(eq(houseLicences.publish, false)),
        eq(assets.isClaimed, true),
      );
    case 'ends':
      return ends;
    case 'claimed':
      return eq(assets.isClaimed, true);
    case 'consent':
      return inArray(assets.consent, [...WITHOUT_CONSENT]);
    case 'comp':
      return eq(assets.licence, 'comp');
    case 'not-cleared':
      return or(inArray(assets.licence, CLOSED), underHouseLicence(eq(houseLicences.publish, false)));
    case 'owes-credit':
      return or(inArray(assets.licence, CREDITED), underHouseLicence(eq(houseLicences.owesCredit, 'yes')));
    case 'all':
      return undefined;
  }
}

const dayAfter = (day: string, days: number): string =>
  new Date(Date.parse(day) + days * DAY_MILLIS).toISOString().slice(0, 10);

function placeIs({ db }: Context, place: NonNullable<Question['place']>): SQL | undefined {
  const used = db
    .select({ id: placements.assetId })
    .from(placements)
    .where(eq(placements.assetId, assets.id));
  switch (place) {
    case 'anywhere':
      return undefined;
    case 'pages':
      return sql`exists ${used}`;
    case 'nowhere':
      return sql`not exists ${used}`;
    case 'out':
      return sql`exists ${db
        .select({ id: placements.assetId })
        .from(placements)
        .innerJoin(pageVersions, eq(pageVersions.pageId, placements.pageId))
        .where(and(eq(placements.assetId, assets.id), isNotNull(pageVersions.sentAt)))}`;
  }
}

const ORDERS: Readonly<
  Record<NonNullable<Question['order']>, ListOrder<'lastDay' | 'stem' | 'createdAt', AssetRow>>
> = {
  soonest: { by: 'lastDay', at: ({ lastDay }) => lastDay, read: String },
  name: { by: 'stem', isUnique: true, at: ({ stem }) => stem, read: String },
  newest: {
    by: 'createdAt',
    isDown: true,
    at: ({ createdAt }) => createdAt.toISOString(),
    read: (value) => new Date(value),
  },
};

/** The pages on which pieces stand, by title, and whether each of them went out. */
export async function pagesOf(
  { db }: Context,
  assetIds: readonly string[],
): Promise<ReadonlyMap<string, LedgerRow['pages']>> {
  if (assetIds.length === 0) return new Map();
  const rows = await db
    .selectDistinct({ assetId: placements.assetId, id: pages.id, title: pages.title, isOut: isOut() })
    .from(placements)
    .innerJoin(pages, eq(pages.id, placements.pageId))
    .where(inArray(placements.assetId, [...assetIds]))
    .orderBy(asc(pages.title), asc(pages.id));
  const found = new Map<string, LedgerRow['pages']>();
  for (const { assetId, ...page } of rows)
    found.set(assetId, [...(found.get(assetId) ?? []), { ...page, isOut: Boolean(page.isOut) }]);
  return found;
}

/** Whether a page went out at least once. */
export const isOut = () =>
  sql<number>`exists (select 1 from ${pageVersions} where ${pageVersions.pageId} = ${pages.id} and ${pageVersions.sentAt} is not null)`;
