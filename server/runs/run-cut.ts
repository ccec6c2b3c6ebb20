import { maybeRecipe } from '#core/media/recipe-key.ts';
import type { PlannedFile } from '#core/run/plan.ts';
import type { Context } from '../context.ts';
import { type CutSource, ensureCut } from '../imaging/cut-store.ts';

/** The stored cut of a planned file, made now if it is not there. */
export function runCut(context: Context, source: CutSource, file: PlannedFile) {
  const recipe = maybeRecipe(file.recipe);
  if (!recipe) throw new Error(`A run names a recipe that cannot be read: ${file.recipe}`);
  return ensureCut(context, source, recipe, file.width, file.format, file.quality);
}
