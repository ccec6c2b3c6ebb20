import { createHash } from 'node:crypto';
import { and, eq, inArray, isNull } from 'drizzle-orm';
import type { HouseRules } from '#core/page/target.ts';
import { subjectSources } from '#core/run/names.ts';
import type { RunOrder } from '#core/run/order.ts';
import type { RunPiece } from '#core/run/piece.ts';
import { planRun, type RunRow } from '#core/run/plan.ts';
import type { Context } from '../context.ts';
import { assets, held, namesOut, targets } from '../db/schema.ts';
import { notFound } from '../problem.ts';
import { readRules } from '../rules/store.ts';
import { type AssetRow, pieceOf } from '../shelf/present.ts';
import { type Asker, seenBy } from '../shelf/seen.ts';

export interface Planned {
  readonly rules: HouseRules;
  /** In the order of the run; those that are gone from the shelf are left away. */
  readonly assets: readonly AssetRow[];
  readonly rows: readonly RunRow[];
  readonly subjects: ReadonlyMap<string, number>;
  /** Changes when anything of it does: a run is begun on what a person has seen, or not at all. */
  readonly seen: string;
}

/** Settles a run over the pieces as they are now. */
export async function plan(context: Context, order: RunOrder, asker: Asker): Promise<Planned> {
  const [target] = await context.db.select().from(targets).where(eq(targets.id, order.targetId));
  if (!target) throw notFound('This target');
  const rules = readRules(target.rules);
  const found = await inOrder(context, order.pieces, asker);
  const out = await namesOutOf(context, order.pieces);
  const pieces = found.map(
    (row): RunPiece => ({
      ...pieceOf(row),
      folder: row.folder,
      format: row.format,
      originalName: row.originalName,
      isOut: out.has(row.stem),
    }),
  );
  const rows = await withNamesChecked(context, (isTaken) =>
    planRun(order, pieces, rules, isTaken, new Date()),
  );
  const seen = createHash('sha256')
    .update(JSON.stringify([rows, found.map(({ version }) => version)]))
    .digest('hex');
  return { rules, assets: found, rows, subjects: subjectSources(pieces, rules.language), seen };
}

async function inOrder(context: Context, ids: readonly string[], asker: Asker): Promise<readonly AssetRow[]> {
  const found = await context.db
    .select()
    .from(held)
    .where(and(inArray(held.id, [...ids]), isNull(held.deletedAt), seenBy(context, asker, held)));
  const byId = new Map(found.map((row) => [row.id, row]));
  return [...new Set(ids)].flatMap((id) => byId.get(id) ?? []);
}

async function namesOutOf(context: Context, ids: readonly string[]): Promise<ReadonlySet<string>> {
  const rows = await context.db
    .select({ stem: namesOut.stem })
    .from(namesOut)
    .where(inArray(namesOut.assetId, [...ids]));
  return new Set(rows.map(({ stem }) => stem));
}

type IsTaken = (stem: string, assetId: string) => boolean;

/**
 * Plans with the names that are known to be taken, asks for those that it gave, and plans again until all are free: a
 * few questions instead of one for each name.
 */
async function withNamesChecked(
  context: Context,
  planWith: (isTaken: IsTaken) => readonly RunRow[],
): Promise<readonly RunRow[]> {
  const holders = new Map<string, ReadonlySet<string>>();
  for (;;) {
    const rows = planWith((stem, assetId) => [...(holders.get(stem) ?? [])].some((id) => id !== assetId));
    const unasked = [...new Set(rows.map(({ after }) => after.stem))].filter((stem) => !holders.has(stem));
    if (unasked.length === 0) return rows;
    const found = await holdersOf(context, unasked);
    for (const stem of unasked) holders.set(stem, found.get(stem) ?? new Set());
  }
}

/** Which pieces have each of these names, or had it on a page that went out. Thrown-away pieces keep theirs too. */
async function holdersOf(
  context: Context,
  stems: readonly string[],
): Promise<ReadonlyMap<string, ReadonlySet<string>>> {
  const [held, out] = await Promise.all([
    context.db
      .select({ stem: assets.stem, id: assets.id })
      .from(assets)
      .where(inArray(assets.stem, [...stems])),
    context.db
      .select({ stem: namesOut.stem, id: namesOut.assetId })
      .from(namesOut)
      .where(inArray(namesOut.stem, [...stems])),
  ]);
  const holders = new Map<string, Set<string>>();
  for (const { stem, id } of [...held, ...out]) holders.set(stem, (holders.get(stem) ?? new Set()).add(id));
  return holders;
}
