import {
  type AnyColumn,
  and,
  count,
  eq,
  gte,
  inArray,
  isNotNull,
  isNull,
  like,
  or,
  type SQL,
  sql,
} from 'drizzle-orm';
import { unionAll } from 'drizzle-orm/mysql-core';
import type * as v from 'valibot';
import { type AssetCountSchema, type AssetOrder, type AssetQuerySchema, UNFILED } from '#api/assets.ts';
import type { Reader } from '#api/people.ts';
import { LICENCE_IDS, licenceTerms } from '#core/rights/licences.ts';
import { wordStem } from '#core/words/word-stem.ts';
import type { Context } from '../context.ts';
import { assets, held, houseLicences, pictures, pins } from '../db/schema.ts';
import { afterCursor, cursorAfter, inOrder, type ListOrder } from '../keyset.ts';
import { underHouseLicence } from '../rights/house-licences.ts';
import { searchWords } from './derived.ts';
import type { AssetRow } from './present.ts';
import { standing } from './put-away.ts';
import { seenBy } from './seen.ts';
import { meantWords } from './spelling.ts';

type Question = v.InferOutput<typeof AssetQuerySchema>;

export interface ShelfAnswer {
  readonly rows: readonly AssetRow[];
  readonly cursor: string | null;
}

const LIMIT = 120;

/**
 * Answers the Shelf's sentence: one page of pieces, and where the next page begins. Words that no piece has are read as those
 * that were meant.
 */
export async function askShelf(context: Context, question: Question, reader: Reader): Promise<ShelfAnswer> {
  const answer = await askAsTyped(context, question, reader);
  if (answer.rows.length > 0) return answer;
  const meant = await meantBy(context, question, reader);
  return meant === null ? answer : askAsTyped(context, { ...question, words: meant }, reader);
}

/** What was meant by words that found nothing; null where they say what they mean. */
async function meantBy(context: Context, { words }: Question, reader: Reader): Promise<string | null> {
  if (!words || words.length > MOST_MEANT_LETTERS) return null;
  return meantWords(context, words, async (word) => {
    const [one] = await context.db
      .select({ id: assets.id })
      .from(assets)
      .where(and(standing(context, reader), saysWords(word)))
      .limit(1);
    return one !== undefined;
  });
}

/** Longer questions are texts, of which nobody expects that their slips are forgiven. */
const MOST_MEANT_LETTERS = 80;

async function askAsTyped(context: Context, question: Question, reader: Reader): Promise<ShelfAnswer> {
  const filter = filterOf(context, question, reader);
  const order = ORDERS[question.order ?? 'newest'];
  const limit = Math.min(LIMIT, question.limit ?? LIMIT);
  const after = question.cursor ? afterCursor(order, assets, question.cursor) : undefined;
  // The narrow columns first, which the indexes hold, then the whole rows of one page.
  const nearby = await amongTheNext(context, question, reader, limit + 1);
  const ids =
    nearby.length > limit
      ? nearby
      : isOfFolderAlone(question)
        ? await inFolder(context, question, reader, limit + 1)
        : await context.db
            .select({ id: assets.id })
            .from(assets, hintsFor(question))
            .where(and(filter, after))
            .orderBy(...inOrder(order, assets))
            .limit(limit + 1);
  const rows = await rowsOf(
    context,
    ids.map(({ id }) => id),
  );
  const last = rows.length > limit ? rows[limit - 1] : undefined;
  return {
    rows: rows.slice(0, limit),
    cursor: last ? cursorAfter(order, last) : null,
  };
}

/** How many pieces are read in the order that is asked, before words are looked up in the index of words. */
const READ_AHEAD = 1500;

/**
 * The pieces with the words among the next ones in the order. The index of words gathers all pieces with a word before
 * any can be put in order; a word that one piece in ten has fills a page long before that.
 */
async function amongTheNext(
  context: Context,
  question: Question,
  reader: Reader,
  limit: number,
): Promise<readonly { readonly id: string }[]> {
  const words = wordsOf(question.words);
  if (words.length === 0) return [];
  const order = ORDERS[question.order ?? 'newest'];
  const { words: _words, ...rest } = question;
  const next = context.db
    .select({
      id: assets.id,
      search: assets.search,
      createdAt: assets.createdAt,
      stem: assets.stem,
      widthPx: assets.widthPx,
    })
    .from(assets, hintsFor(rest))
    .where(
      and(
        filterOf(context, rest, reader),
        question.cursor ? afterCursor(order, assets, question.cursor) : undefined,
      ),
    )
    .orderBy(...inOrder(order, assets))
    .limit(READ_AHEAD)
    .as('next_pieces');
  return context.db
    .select({ id: next.id })
    .from(next)
    .where(and(...words.map((word) => beginsIn(next.search, word))))
    .orderBy(...inOrder(order, next))
    .limit(limit);
}

/** Whether a folder is asked for and no words, so that its index is the one to read. */
function isOfFolderAlone({ folder, words }: Question): boolean {
  return Boolean(folder) && folder !== UNFILED && wordsOf(words).length === 0;
}

/**
 * The next pieces of a folder and of those below it, asked for apart: the index holds one folder in the order of names,
 * and both together in none (12,500 pieces by name: 44 ms to sort them all, 4 ms to read the first).
 */
async function inFolder(
  context: Context,
  question: Question,
  reader: Reader,
  limit: number,
): Promise<readonly { readonly id: string }[]> {
  const { folder = '', ...rest } = question;
  const order = ORDERS[question.order ?? 'newest'];
  const after = question.cursor ? afterCursor(order, assets, question.cursor) : undefined;
  const part = (isIt: SQL) =>
    context.db
      .select({
        id: assets.id,
        createdAt: assets.createdAt,
        stem: assets.stem,
        widthPx: assets.widthPx,
      })
      .from(assets, hintsFor(question))
      .where(and(filterOf(context, rest, reader), isIt, after))
      .orderBy(...inOrder(order, assets))
      .limit(limit);
  const both = unionAll(part(eq(assets.folder, folder)), part(isBelow(folder))).as('of_folder');
  return context.db
    .select({ id: both.id })
    .from(both)
    .orderBy(...inOrder(order, both))
    .limit(limit);
}

const isBelow = (folder: string): SQL => like(assets.folder, `${escapeLike(folder)}/%`);

/** How many pieces answer a question. Apart from the pieces themselves, which are there long before all are counted. */
export async function countShelf(
  context: Context,
  question: Question,
  reader: Reader,
): Promise<v.InferOutput<typeof AssetCountSchema>> {
  const countOf = async (condition: SQL | undefined, hints: IndexHints) => {
    const [row] = await context.db.select({ n: count() }).from(assets, hints).where(condition);
    return row?.n ?? 0;
  };
  const countFor = (asked: Question) => countOf(filterOf(context, asked, reader), hintsFor(asked));
  const [held, narrowed] = await Promise.all([
    countOf(standing(context, reader), {}),
    filtersNothing(question) ? null : countFor(question),
  ]);
  const meant = narrowed === 0 ? await meantBy(context, question, reader) : null;
  if (meant !== null) return { found: await countFor({ ...question, words: meant }), held, readAs: meant };
  return { found: narrowed ?? held, held, readAs: null };
}

type IndexHints = { readonly forceIndex?: string };

/**
 * MariaDB takes two conditions on the folder for more than they are, and reads everything instead. Where words are looked
 * up in their own index, no other can be forced: it refuses the question then (error 1191).
 */
function hintsFor({ folder, words }: Question): IndexHints {
  return folder && !wordsOf(words).some(isIndexed) ? { forceIndex: 'assets_standing_folder' } : {};
}

function filterOf(context: Context, question: Question, reader: Reader): SQL | undefined {
  return and(partIs(context, question.part, reader), ...conditionsOf(question));
}

/** Whether the question is for all that stands on the shelf, so that one count says both. */
function filtersNothing(question: Question): boolean {
  const { order: _order, limit: _limit, cursor: _cursor, ...asked } = question;
  return Object.values(asked).every((value) => value === undefined || value === '' || value === 'any');
}

/** Whole rows in the order of their IDs. */
export async function rowsOf(context: Context, ids: readonly string[]): Promise<readonly AssetRow[]> {
  if (ids.length === 0) return [];
  const rows = await context.db
    .select()
    .from(held)
    .where(inArray(held.id, [...ids]));
  const byId = new Map(rows.map((row) => [row.id, row]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

function conditionsOf(question: Question): readonly (SQL | undefined)[] {
  return [
    kindIs(question.kind),
    question.folder === UNFILED
      ? eq(assets.folder, '')
      : question.folder
        ? or(eq(assets.folder, question.folder), isBelow(question.folder))
        : undefined,
    licenceIs(question.licence),
    missing(question.missing),
    shapeIs(question.shape),
    question.leastWidth ? gte(assets.widthPx, question.leastWidth) : undefined,
    saysWords(question.words),
  ];
}

/** Which part of the shelf is asked; without a word, what stands on it. */
function partIs(context: Context, part: Question['part'], reader: Reader): SQL | undefined {
  switch (part) {
    case 'pinned':
      return and(
        isNull(assets.deletedAt),
        seenBy(context, reader),
        inArray(
          assets.id,
          context.db.select({ id: pins.assetId }).from(pins).where(eq(pins.personId, reader.id)),
        ),
      );
    case 'folded':
      return and(isNull(assets.deletedAt), isNotNull(assets.foldedInto), seenBy(context, reader));
    case 'thrown-away':
      return and(isNotNull(assets.deletedAt), seenBy(context, reader));
    default:
      return standing(context, reader);
  }
}

function kindIs(kind: Question['kind']): SQL | undefined {
  switch (kind) {
    case 'photo':
      return and(eq(assets.kind, 'picture'), shownBy(inArray(pictures.format, ['jpeg', 'tiff', 'avif'])));
    case 'drawing':
      return and(eq(assets.kind, 'picture'), shownBy(eq(pictures.format, 'svg')));
    case 'animated':
      return and(eq(assets.kind, 'picture'), shownBy(eq(pictures.animated, true)));
    case 'transparent':
      return and(eq(assets.kind, 'picture'), shownBy(eq(pictures.alpha, true)));
    case 'embed':
    case 'document':
    case 'film':
      return eq(assets.kind, kind);
    default:
      return undefined;
  }
}

/** Looked up piece by piece, so that the order of the shelf is still read from its index. */
function shownBy(condition: SQL): SQL {
  return sql`exists (select 1 from ${pictures} where ${pictures.assetId} = ${assets.id} and ${condition})`;
}

function licenceIs(asked: Question['licence']): SQL | undefined {
  if (!asked || asked === 'any') return undefined;
  if (asked !== 'commercial' && asked !== 'changeable') return eq(assets.licence, asked);
  const which = LICENCE_IDS.filter(
    (id) =>
      (asked === 'commercial' ? licenceTerms(id).commercial : licenceTerms(id).allowsDerivatives) &&
      licenceTerms(id).publish &&
      licenceTerms(id).onlyIn === null,
  );
  const allows = asked === 'commercial' ? houseLicences.commercial : houseLicences.allowsDerivatives;
  const ofHouse = and(eq(allows, true), eq(houseLicences.publish, true), isNull(houseLicences.onlyIn));
  return or(inArray(assets.licence, which), ofHouse && underHouseLicence(ofHouse));
}

function missing(what: Question['missing']): SQL | undefined {
  switch (what) {
    case 'alt':
      return eq(assets.altState, 'unsaid');
    case 'title':
      return eq(assets.title, '');
    case 'creator':
      return eq(assets.creator, '');
    default:
      return undefined;
  }
}

function shapeIs(shape: Question['shape']): SQL | undefined {
  const aspect = sql`${assets.widthPx} / ${assets.heightPx}`;
  switch (shape) {
    case 'landscape':
      return sql`${aspect} > 1.05`;
    case 'portrait':
      return sql`${aspect} < 0.95`;
    case 'square':
      return sql`${aspect} between 0.95 and 1.05`;
    default:
      return undefined;
  }
}

/** Most words of one question that are looked for. */
const MOST_WORDS = 10;

/** The words of a question, without their endings: what is held is looked for by its beginning, whatever its accents. */
function wordsOf(words: string | undefined): readonly string[] {
  return searchWords(words ?? '')
    .slice(0, MOST_WORDS)
    .map((word) => (LEFT_OUT.has(word.toLowerCase()) ? word : wordStem(word)));
}

/** Every word has to be there, at least as the beginning of one. */
function saysWords(said: string | undefined): SQL | undefined {
  const words = wordsOf(said);
  const indexed = words.filter(isIndexed);
  const expression = indexed.map((word) => `+${word}*`).join(' ');
  return and(
    indexed.length > 0 ? sql`match(${assets.search}) against (${expression} in boolean mode)` : undefined,
    ...words.filter((word) => !isIndexed(word)).map((word) => beginsIn(assets.search, word)),
  );
}

/** Words are held one space apart, with a space before the first. */
function beginsIn(search: AnyColumn, word: string): SQL {
  return like(search, `% ${word}%`);
}

/** Words shorter than this are left out of the index of words, and so are these (InnoDB's default stopwords). */
const SHORT_LETTERS = 3;
const LEFT_OUT = new Set(
  'about are com for from how that the this was what when where who will with und www'.split(' '),
);

function isIndexed(word: string): boolean {
  return word.length >= SHORT_LETTERS && !LEFT_OUT.has(word.toLowerCase());
}

export function escapeLike(text: string): string {
  return text.replace(/[\\%_]/g, '\\$&');
}

type Ordered = 'createdAt' | 'stem' | 'widthPx';

const asDate = (value: string | number) => new Date(value);
const createdAt = ({ createdAt: at }: AssetRow) => at.toISOString();

const ORDERS: Readonly<Record<AssetOrder, ListOrder<Ordered, AssetRow>>> = {
  newest: { by: 'createdAt', isDown: true, at: createdAt, read: asDate },
  oldest: { by: 'createdAt', at: createdAt, read: asDate },
  name: { by: 'stem', isUnique: true, at: ({ stem }) => stem, read: String },
  widest: { by: 'widthPx', isDown: true, at: ({ widthPx }) => widthPx, read: Number },
};
