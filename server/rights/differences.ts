import { and, eq, inArray, isNull } from 'drizzle-orm';
import type { SaidDifference } from '#api/rights.ts';
import { type Difference, differencesOf } from '#core/rights/differences.ts';
import type { Label } from '#core/rights/label.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { provenance, saidOtherwise, sourceAsks } from '../db/schema.ts';
import { notFound } from '../problem.ts';

interface Subject {
  readonly id: string;
  readonly label: Label;
}

/** What its file and its source say otherwise than its label, however it was decided. */
async function allDifferences(db: Queries, { id, label }: Subject): Promise<readonly Difference[]> {
  const comings = await db
    .select({ said: provenance.said })
    .from(provenance)
    .where(eq(provenance.assetId, id));
  const [asked] = await db.select().from(sourceAsks).where(eq(sourceAsks.assetId, id));
  const all = differencesOf(
    label,
    comings.flatMap(({ said }) => said),
    asked ?? null,
  );
  return all.map((one) => ({ ...one, says: one.says.slice(0, MOST_LETTERS) }));
}

const MOST_LETTERS = 2000;

/**
 * Writes down what is said otherwise than a label, after the label or the source said something new. What somebody decided over
 * the same words stays decided.
 */
export async function settleDifferences(db: Queries, subject: Subject, now: Date): Promise<void> {
  const found = await allDifferences(db, subject);
  const isOf = eq(saidOtherwise.assetId, subject.id);
  const before = await db.select().from(saidOtherwise).where(isOf);
  const gone = before.filter(
    (row) => !found.some(({ by, about, says }) => row.by === by && row.about === about && row.says === says),
  );
  for (const { by, about } of gone)
    await db.delete(saidOtherwise).where(and(isOf, eq(saidOtherwise.by, by), eq(saidOtherwise.about, about)));
  if (found.length > 0)
    await db
      .insert(saidOtherwise)
      .ignore()
      .values(found.map(({ by, about, says }) => ({ assetId: subject.id, by, about, says, at: now })));
}

/** What is said otherwise than a label and nobody has decided. */
export async function openDifferences(context: Context, subject: Subject): Promise<SaidDifference[]> {
  const [found, rows] = await Promise.all([
    allDifferences(context.db, subject),
    context.db.select().from(saidOtherwise).where(eq(saidOtherwise.assetId, subject.id)),
  ]);
  const isKept = ({ by, about, says }: Difference) =>
    rows.some((row) => row.keptBy !== null && row.by === by && row.about === about && row.says === says);
  return found.filter((one) => !isKept(one)).map((one) => ({ ...one }));
}

/** Which of these pieces something undecided is said of, and by whom. */
export async function piecesSaidOtherwise(
  { db }: Context,
  ids: readonly string[],
): Promise<ReadonlyMap<string, readonly Pick<Difference, 'by' | 'about' | 'says'>[]>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select()
    .from(saidOtherwise)
    .where(and(inArray(saidOtherwise.assetId, [...ids]), isNull(saidOtherwise.keptBy)));
  const found = new Map<string, Pick<Difference, 'by' | 'about' | 'says'>[]>();
  for (const { assetId, by, about, says } of rows)
    found.set(assetId, [...(found.get(assetId) ?? []), { by, about, says }]);
  return found;
}

/** Decides that a label is right over what somebody else says (`isKept`), or takes that back. */
export async function keepLabel(
  { db }: Context,
  assetId: string,
  { by, about, says }: Pick<Difference, 'by' | 'about' | 'says'>,
  personId: string | null,
): Promise<void> {
  const isThis = and(
    eq(saidOtherwise.assetId, assetId),
    eq(saidOtherwise.by, by),
    eq(saidOtherwise.about, about),
    eq(saidOtherwise.says, says),
  );
  const [row] = await db.select().from(saidOtherwise).where(isThis);
  if (!row) throw notFound('What it says otherwise');
  await db.update(saidOtherwise).set({ keptBy: personId }).where(isThis);
}
