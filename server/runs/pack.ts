import { mkdir, rm, stat, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { metadataOfLabel } from '#core/formats/metadata.ts';
import { maybeRecipe } from '#core/media/recipe-key.ts';
import { changesOf } from '#core/media/recipe-says.ts';
import { messagesFor } from '#core/messages/messages.ts';
import type { HouseRules } from '#core/page/target.ts';
import { creditedAs } from '#core/page/words.ts';
import { creditOf, creditText } from '#core/rights/credit.ts';
import { copyAt, judge } from '#core/rights/judgement.ts';
import { labelIn } from '#core/rights/label-in.ts';
import { type ManifestLine, manifestCsv, manifestJson } from '#core/run/manifest.ts';
import type { PlannedFile } from '#core/run/plan.ts';
import type { Context } from '../context.ts';
import { held, targets } from '../db/schema.ts';
import type { JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { notFound } from '../problem.ts';
import { readRules } from '../rules/store.ts';
import { type AssetRow, pieceOf } from '../shelf/present.ts';
import { bundleKey } from '../storage/storage.ts';
import { workFolder } from '../work-folder.ts';
import { zipFolder } from '../zip.ts';
import { RunInputSchema } from './input.ts';
import { runCut } from './run-cut.ts';
import { doneSteps, type StepRow } from './step.ts';

/** Packs the files of all steps that are done, each with its label inside, and a list of them as CSV and JSON. */
export async function packRun(
  context: Context,
  job: JobRow,
  tools: JobTools,
): Promise<Pick<JobResult, 'resultKey' | 'resultBytes'>> {
  const { order } = v.parse(RunInputSchema, job.input);
  const [target] = await context.db.select().from(targets).where(eq(targets.id, order.targetId));
  if (!target) throw notFound('The target of this run');
  const rules = readRules(target.rules);
  const steps = await doneSteps(context, job.id);
  const folder = await workFolder(context);
  try {
    const files = join(folder, 'files');
    const lines: ManifestLine[] = [];
    for (const [at, step] of steps.entries()) {
      await tools.report(steps.length, steps.length, `Packing ${at + 1} of ${steps.length}`);
      lines.push(...(await packStep(context, step, rules, files)));
    }
    await mkdir(files, { recursive: true });
    await writeFile(join(files, 'manifest.csv'), manifestCsv(lines));
    await writeFile(join(files, 'manifest.json'), manifestJson(lines));
    const zip = join(folder, 'run.zip');
    await zipFolder(files, zip);
    const { size } = await stat(zip);
    const resultKey = bundleKey(job.id);
    await context.storage.take(resultKey, zip);
    return { resultKey, resultBytes: size };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function packStep(
  context: Context,
  step: StepRow,
  rules: HouseRules,
  into: string,
): Promise<readonly ManifestLine[]> {
  const [asset] = await context.db.select().from(held).where(eq(held.id, step.assetId));
  if (!asset) return [];
  const lines: ManifestLine[] = [];
  for (const file of step.row.files) {
    const path = [step.row.after.folder, file.name].filter(Boolean).join('/');
    const credit = creditOfFile(asset, file, rules);
    const bytes = await writeFileOf(context, asset, file, credit, join(into, path));
    lines.push({ path, file, bytes, original: asset.originalName, label: asset.label, credit });
  }
  return lines;
}

function creditOfFile(asset: AssetRow, file: PlannedFile, rules: HouseRules): string {
  const { label } = asset;
  const recipe = maybeRecipe(file.recipe);
  const judgement = judge(label, copyAt(rules, recipe ? changesOf(recipe) : []));
  return creditText(
    creditOf(labelIn(label, rules.language), judgement, {
      made: creditedAs(pieceOf(asset)),
      messages: messagesFor(rules.language),
      language: rules.language,
      form: 'full',
    }),
  );
}

async function writeFileOf(
  context: Context,
  asset: AssetRow,
  file: PlannedFile,
  credit: string,
  path: string,
): Promise<number> {
  const cut = await runCut(context, asset, file);
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, await context.storage.read(cut.key));
  const tags = metadataOfLabel(asset.label, credit);
  if (Object.keys(tags).length > 0) await context.metadata.write(path, tags);
  return (await stat(path)).size;
}
