import { createHash, randomUUID } from 'node:crypto';
import { link, mkdir } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { and, eq, inArray, like } from 'drizzle-orm';
import { WHOLE } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { readConfig } from '../server/config.ts';
import { type Context, closeContext, openContext } from '../server/context.ts';
import { assets, cuts, held, pictures } from '../server/db/schema.ts';
import { SCREEN_QUALITY } from '../server/imaging/first-look.ts';
import { derivedColumns } from '../server/shelf/derived.ts';
import { cutKey, originalKey } from '../server/storage/storage.ts';
import { seedDemo } from './seed.ts';

/**
 * Makes 100,000 pieces out of the demo's, for work at scale: each a row of its own with a name and a label, whose
 * files are links to those of the piece it was made from, so that it takes no room.
 */
const WANTED = 100_000;
const BATCH = 500;
const MINUTE_MILLIS = 60_000;

const context = await openContext(readConfig(process.env));
await seedDemo(context, (sentence) => process.stdout.write(`${sentence}\n`));
const models = await context.db
  .select()
  .from(held)
  .where(and(eq(held.kind, 'picture'), inArray(held.format, ['jpeg', 'png'])));
const screenCuts = await context.db
  .select()
  .from(cuts)
  .where(eq(cuts.recipe, recipeKey(WHOLE)));
const cutsByModel = new Map(
  models.map((model) => [
    model.id,
    screenCuts.filter(
      (cut) => cut.assetId === model.id && cut.quality === SCREEN_QUALITY && cut.format === 'webp',
    ),
  ]),
);
const made = await context.db.select({ id: assets.id }).from(assets).where(like(assets.stem, 'large-%'));
for (let from = made.length; from < WANTED; from += BATCH) {
  await makeBatch(context, from, Math.min(WANTED, from + BATCH));
  if (from % 10_000 === 0) process.stdout.write(`${from} of ${WANTED} pieces hang.\n`);
}
await closeContext(context);

async function makeBatch(open: Context, from: number, to: number): Promise<void> {
  const rows: (typeof assets.$inferInsert)[] = [];
  const pictureRows: (typeof pictures.$inferInsert)[] = [];
  const cutRows: (typeof cuts.$inferInsert)[] = [];
  for (let number = from; number < to; number += 1) {
    const model = models[number % models.length];
    if (!model) return;
    const sha256 = createHash('sha256').update(`large ${number}`).digest('hex');
    const id = randomUUID();
    const stem = `large-${model.stem}`.slice(0, 70).concat(`-${number}`);
    const label = { ...model.label, title: `${model.label.title || 'Marsh'}, ${number}` };
    const createdAt = new Date(model.createdAt.getTime() - number * MINUTE_MILLIS);
    rows.push({
      ...model,
      id,
      identity: sha256,
      stem,
      label,
      version: 1,
      createdAt,
      ...derivedColumns(label, stem, model.originalName, model.drafted),
    });
    pictureRows.push({ ...model, assetId: id, sha256 });
    await linkFile(originalKey(model.sha256), originalKey(sha256));
    for (const cut of cutsByModel.get(model.id) ?? []) {
      const keyOf = (sha: string) => cutKey(sha, cut.recipe, cut.widthPx, cut.format, cut.quality);
      await linkFile(keyOf(model.sha256), keyOf(sha256));
      cutRows.push({ ...cut, assetId: id });
    }
  }
  await open.db.transaction(async (tx) => {
    await tx.insert(assets).values(rows);
    await tx.insert(pictures).values(pictureRows);
    await tx.insert(cuts).ignore().values(cutRows);
  });
}

async function linkFile(from: string, to: string): Promise<void> {
  const [source, target] = [from, to].map((key) => join(context.config.dataFolder, 'files', key));
  if (!source || !target) return;
  await mkdir(dirname(target), { recursive: true });
  await link(source, target).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'EEXIST') throw error;
  });
}
