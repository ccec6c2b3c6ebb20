import { and, asc, eq } from 'drizzle-orm';
import { withAncestors } from '#core/naming/paths.ts';
import { nameFault } from '#core/naming/rule.ts';
import type { RunRow, RunState } from '#core/run/plan.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { isDuplicate } from '../db/failures.ts';
import { assets, folders, held, pictures, runSteps } from '../db/schema.ts';
import { derivedColumns } from '../shelf/derived.ts';
import { holderOfName } from '../shelf/names-out.ts';
import { type AssetRow, pieceOf } from '../shelf/present.ts';

export type StepRow = typeof runSteps.$inferSelect;

/** What became of a step. */
export interface Outcome {
  readonly state: 'done' | 'refused' | 'undone';
  readonly sentence: string;
}

const isChanged = ({ before, after }: Pick<RunRow, 'before' | 'after'>) =>
  JSON.stringify(before) !== JSON.stringify(after);

/**
 * Changes a piece as its step says, together with the step's own state, or leaves both: when somebody changed the
 * piece since the run was settled, or took its name, it stays as it is and the step says so.
 */
export async function applyStep(
  context: Context,
  step: StepRow,
  madeBytes: number,
  personId: string,
  now: Date,
): Promise<Outcome> {
  try {
    return await context.db.transaction(async (tx) => {
      // A worker whose lease ran out may still be at it: what either has settled stands.
      const settled = await settledOutcome(tx, step);
      if (settled) return settled;
      const outcome = isChanged(step.row)
        ? await change(tx, step, personId, now)
        : ({ state: 'done', sentence: '' } as const);
      await settle(tx, step, { ...outcome, madeBytes, now });
      return outcome;
    });
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    const outcome = refused(
      `${step.row.after.stem} was taken meanwhile. It stays ${step.row.before.stem}, and where it is.`,
    );
    await settle(context.db, step, { ...outcome, madeBytes, now });
    return outcome;
  }
}

async function settledOutcome(tx: Queries, step: StepRow): Promise<Outcome | undefined> {
  const [now] = await tx
    .select({ state: runSteps.state, sentence: runSteps.sentence })
    .from(runSteps)
    .where(and(eq(runSteps.jobId, step.jobId), eq(runSteps.ordinal, step.ordinal)))
    .for('update');
  return now?.state === 'done' || now?.state === 'refused'
    ? { state: now.state, sentence: now.sentence }
    : undefined;
}

const refused = (sentence: string): Outcome => ({ state: 'refused', sentence });

async function change(tx: Queries, step: StepRow, personId: string, now: Date): Promise<Outcome> {
  const { before, after } = step.row;
  const [asset] = await tx.select().from(held).where(eq(held.id, step.assetId)).for('update');
  if (!asset || asset.deletedAt !== null) return refused('It was thrown away meanwhile.');
  if (asset.version !== step.version)
    return refused('Somebody changed it since the run was settled. It is left as they made it.');
  const holder = after.stem === before.stem ? undefined : await holderOfName(tx, after.stem);
  if (nameFault(after.stem) || (holder !== undefined && holder !== step.assetId))
    return refused(`${after.stem} was taken meanwhile. It stays ${before.stem}, and where it is.`);
  await writeState(tx, asset, after, { personId, now, what: 'changed it in a run' });
  return { state: 'done', sentence: '' };
}

/** Puts back each part of a piece that is still as the run left it; what was changed since is left alone. */
export async function takeBackStep(
  tx: Queries,
  step: StepRow,
  personId: string,
  now: Date,
): Promise<Outcome> {
  const [asset] = await tx.select().from(held).where(eq(held.id, step.assetId)).for('update');
  if (!asset) return { state: 'undone', sentence: 'It was thrown away since.' };
  const { before, after } = step.row;
  const current = stateOf(asset);
  const kept: string[] = [];
  const put = <K extends keyof RunState>(part: K, words: string): RunState[K] => {
    if (same(current[part], after[part])) return before[part];
    if (!same(current[part], before[part])) kept.push(words);
    return current[part];
  };
  const restored: RunState = {
    stem: put('stem', 'name'),
    folder: put('folder', 'folder'),
    title: put('title', 'title'),
    prep: put('prep', 'recipe'),
  };
  const isFree = restored.stem === asset.stem || (await isStemFree(tx, restored.stem, asset.id));
  if (!isFree) kept.push('name');
  const next = isFree ? restored : { ...restored, stem: asset.stem };
  if (isChanged({ before: current, after: next }))
    await writeState(tx, asset, next, { personId, now, what: 'took a run back' });
  const sentence = kept.length === 0 ? '' : `Its ${kept.join(' and ')} was changed since, and stays so.`;
  const version = isChanged({ before: current, after: next }) ? asset.version + 1 : asset.version;
  await tx
    .update(runSteps)
    .set({ state: 'undone', sentence, version, endedAt: now })
    .where(and(eq(runSteps.jobId, step.jobId), eq(runSteps.ordinal, step.ordinal)));
  return { state: 'undone', sentence };
}

const same = (one: unknown, other: unknown) => JSON.stringify(one) === JSON.stringify(other);

function stateOf(asset: AssetRow): RunState {
  return { stem: asset.stem, folder: asset.folder, title: asset.label.title, prep: pieceOf(asset).prep };
}

async function isStemFree(tx: Queries, stem: string, assetId: string): Promise<boolean> {
  const [other] = await tx.select({ id: assets.id }).from(assets).where(eq(assets.stem, stem));
  const holder = await holderOfName(tx, stem);
  return other === undefined && (holder === undefined || holder === assetId);
}

async function writeState(
  tx: Queries,
  asset: AssetRow,
  next: RunState,
  by: { readonly personId: string; readonly now: Date; readonly what: string },
): Promise<void> {
  const label = { ...asset.label, title: next.title };
  await tx
    .update(assets)
    .set({
      label,
      stem: next.stem,
      folder: next.folder,
      version: asset.version + 1,
      ...derivedColumns(label, next.stem, asset.originalName, asset.drafted),
    })
    .where(eq(assets.id, asset.id));
  // A recipe that a newer Placard made is not read here, and stays unless another is put in its place.
  if (!same(pieceOf(asset).prep, next.prep))
    await tx.update(pictures).set({ prep: next.prep }).where(eq(pictures.assetId, asset.id));
  for (const path of withAncestors(next.folder)) await tx.insert(folders).ignore().values({ path });
  await writeActivity(
    tx,
    {
      personId: by.personId,
      subject: 'asset',
      subjectId: asset.id,
      what: by.what,
      before: { label: asset.label, stem: asset.stem, folder: asset.folder, prep: asset.prep ?? null },
      after: { label, stem: next.stem, folder: next.folder, prep: next.prep },
    },
    by.now,
  );
}

export async function settle(
  db: Queries,
  { jobId, ordinal }: StepRow,
  { state, sentence, madeBytes, now }: Outcome & { readonly madeBytes: number; readonly now: Date },
): Promise<void> {
  await db
    .update(runSteps)
    .set({ state, sentence: sentence.slice(0, 500), madeBytes, endedAt: now })
    .where(and(eq(runSteps.jobId, jobId), eq(runSteps.ordinal, ordinal)));
}

/** The steps of a run that are done, in their order. */
export function doneSteps(context: Context, jobId: string): Promise<StepRow[]> {
  return context.db
    .select()
    .from(runSteps)
    .where(and(eq(runSteps.jobId, jobId), eq(runSteps.state, 'done')))
    .orderBy(asc(runSteps.ordinal));
}
