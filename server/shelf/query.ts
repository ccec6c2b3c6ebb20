import {
  and,
  asc,
  count,
  desc,
  eq,
  gt,
  gte,
  inArray,
  isNotNull,
  isNull,
  like,
  lt,
  or,
  type SQL,
  sql,
} from 'drizzle-orm';
import * as v from 'valibot';
import type { AssetCountSchema, AssetOrder, AssetQuerySchema } from '#api/assets.ts';
import { isLicenceId, LICENCE_IDS, licenceTerms } from '#core/rights/licences.ts';
import type { Context } from '../context.ts';
import { assets, pins } from '../db/schema.ts';
import { Refusal } from '../problem.ts';
import type { AssetRow } from './present.ts';
import { standing } from './put-away.ts';

type Question = v.InferOutput<typeof AssetQuerySchema>;

export interface ShelfAnswer {
  readonly rows: readonly AssetRow[];
  readonly cursor: string | null;
}

const LIMIT = 120;

/** Answers the Shelf's sentence: one page of pieces, and where the next page begins. */
export async function askShelf(context: Context, question: Question, personId: string): Promise<ShelfAnswer> {
  const filter = filterOf(context, question, personId);
  const order = question.order ?? 'newest';
  const limit = Math.min(LIMIT, question.limit ?? LIMIT);
  const after = question.cursor ? afterCursor(order, question.cursor) : undefined;
  // The narrow columns first, which the indexes hold, then the whole rows of one page.
  const ids = await context.db
    .select({ id: assets.id })
    .from(assets, hintsFor(question))
    .where(and(filter, after))
    .orderBy(...ORDERS[order].by)
    .limit(limit + 1);
  const rows = await rowsOf(
    context,
    ids.map(({ id }) => id),
  );
  const last = rows.length > limit ? rows[limit - 1] : undefined;
  return {
    rows: rows.slice(0, limit),
    cursor: last ? cursorOf(order, last) : null,
  };
}

/** How many pieces answer a question. Apart from the pieces themselves, which are there long before all are counted. */
export async function countShelf(
  context: Context,
  question: Question,
  personId: string,
): Promise<v.InferOutput<typeof AssetCountSchema>> {
  const countOf = async (condition: SQL | undefined, hints: IndexHints) => {
    const [row] = await context.db.select({ n: count() }).from(assets, hints).where(condition);
    return row?.n ?? 0;
  };
  const [held, narrowed] = await Promise.all([
    countOf(standing(), {}),
    filtersNothing(question) ? null : countOf(filterOf(context, question, personId), hintsFor(question)),
  ]);
  return { found: narrowed ?? held, held };
}

type IndexHints = { readonly forceIndex?: string };

/** MariaDB takes two conditions on the folder for more than they are, and reads everything instead. */
function hintsFor({ folder }: Question): IndexHints {
  return folder ? { forceIndex: 'assets_standing_folder' } : {};
}

function filterOf(context: Context, question: Question, personId: string): SQL | undefined {
  return and(partIs(context, question.part, personId), ...conditionsOf(question));
}

/** Whether the question is for all that stands on the shelf, so that one count says both. */
function filtersNothing(question: Question): boolean {
  const { order: _order, limit: _limit, cursor: _cursor, ...asked } = question;
  return Object.values(asked).every((value) => value === undefined || value === '' || value === 'any');
}

async function rowsOf(context: Context, ids: readonly string[]): Promise<readonly AssetRow[]> {
  if (ids.length === 0) return [];
  const rows = await context.db
    .select()
    .from(assets)
    .where(inArray(assets.id, [...ids]));
  const byId = new Map(rows.map((row) => [row.id, row]));
  return ids.flatMap((id) => byId.get(id) ?? []);
}

function conditionsOf(question: Question): readonly (SQL | undefined)[] {
  return [
    kindIs(question.kind),
    question.folder
      ? or(eq(assets.folder, question.folder), like(assets.folder, `${escapeLike(question.folder)}/%`))
      : undefined,
    licenceIs(question.licence),
    missing(question.missing),
    shapeIs(question.shape),
    question.leastWidth ? gte(assets.widthPx, question.leastWidth) : undefined,
    saysWords(question.words),
  ];
}

/** Which part of the shelf is asked; without a word, what stands on it. */
function partIs(context: Context, part: Question['part'], personId: string): SQL | undefined {
  switch (part) {
    case 'pinned':
      return and(
        isNull(assets.deletedAt),
        inArray(
          assets.id,
          context.db.select({ id: pins.assetId }).from(pins).where(eq(pins.personId, personId)),
        ),
      );
    case 'folded':
      return and(isNull(assets.deletedAt), isNotNull(assets.foldedInto));
    case 'thrown-away':
      return isNotNull(assets.deletedAt);
    default:
      return standing();
  }
}

function kindIs(kind: Question['kind']): SQL | undefined {
  switch (kind) {
    case 'photo':
      return sql`${assets.format} in ('jpeg', 'tiff', 'avif') `;
    case 'drawing':
      return eq(assets.format, 'svg');
    case 'animated':
      return eq(assets.animated, true);
    case 'transparent':
      return eq(assets.alpha, true);
    default:
      return undefined;
  }
}

function licenceIs(asked: Question['licence']): SQL | undefined {
  if (!asked || asked === 'any') return undefined;
  const which = isLicenceId(asked)
    ? [asked]
    : LICENCE_IDS.filter(
        (id) =>
          (asked === 'commercial' ? licenceTerms(id).commercial : licenceTerms(id).change) &&
          licenceTerms(id).publish,
      );
  return inArray(assets.licence, which);
}

function missing(what: Question['missing']): SQL | undefined {
  switch (what) {
    case 'alt':
      return eq(assets.altState, 'unsaid');
    case 'title':
      return eq(assets.title, '');
    case 'maker':
      return eq(assets.maker, '');
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

/** Words shorter than the full-text index keeps. */
const SHORT_LETTERS = 3;

/** Every word has to be there, at least as the beginning of one. */
function saysWords(words: string | undefined): SQL | undefined {
  const asked = (words ?? '')
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .slice(0, 10);
  if (asked.length === 0) return undefined;
  const long = asked.filter((word) => word.length >= SHORT_LETTERS);
  const short = asked.filter((word) => word.length < SHORT_LETTERS);
  const expression = long.map((word) => `+${word}*`).join(' ');
  return and(
    long.length > 0 ? sql`match(${assets.search}) against (${expression} in boolean mode)` : undefined,
    ...short.map((word) => like(assets.search, `%${escapeLike(word)}%`)),
  );
}

function escapeLike(text: string): string {
  return text.replace(/[\\%_]/g, '\\$&');
}

/** How each order sorts, what its cursor holds, and what comes after a cursor. */
const ORDERS = {
  newest: { by: [desc(assets.createdAt), desc(assets.id)] },
  oldest: { by: [asc(assets.createdAt), asc(assets.id)] },
  name: { by: [asc(assets.stem), asc(assets.id)] },
  widest: { by: [desc(assets.widthPx), desc(assets.id)] },
} as const;

const CursorSchema = v.pipe(
  v.string(),
  v.rawTransform(({ dataset, addIssue, NEVER }) => {
    try {
      return JSON.parse(Buffer.from(dataset.value, 'base64url').toString()) as unknown;
    } catch {
      addIssue({ message: 'Not a cursor.' });
      return NEVER;
    }
  }),
  v.strictTuple([v.union([v.string(), v.number()]), v.string()]),
);

function cursorOf(order: AssetOrder, row: AssetRow): string {
  const value = order === 'name' ? row.stem : order === 'widest' ? row.widthPx : row.createdAt.toISOString();
  return Buffer.from(JSON.stringify([value, row.id])).toString('base64url');
}

function afterCursor(order: AssetOrder, cursor: string): SQL | undefined {
  const parsed = v.safeParse(CursorSchema, cursor);
  if (!parsed.success) throw new Refusal(422, 'The list cannot go on from there. Ask again from its start.');
  const [value, id] = parsed.output;
  switch (order) {
    case 'name':
      return or(gt(assets.stem, String(value)), and(eq(assets.stem, String(value)), gt(assets.id, id)));
    case 'widest':
      return or(lt(assets.widthPx, Number(value)), and(eq(assets.widthPx, Number(value)), lt(assets.id, id)));
    case 'oldest': {
      const at = new Date(value);
      return or(gt(assets.createdAt, at), and(eq(assets.createdAt, at), gt(assets.id, id)));
    }
    case 'newest': {
      const at = new Date(value);
      return or(lt(assets.createdAt, at), and(eq(assets.createdAt, at), lt(assets.id, id)));
    }
  }
}
