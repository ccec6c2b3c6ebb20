import { contrastOver, cutSizeAt, type Lights, neededContrast, sayContrast } from '../media/over-contrast.ts';
import { setWords } from '../media/over-words.ts';
import { type Cuttable, recipeForRatio } from '../media/recipe.ts';
import type { CutPreset } from './target.ts';

/** How the words over one of a target's cuts stand: sentences, and whether something has to be done. */
export interface OverStanding {
  readonly sentence: string;
  readonly isFaint: boolean;
  /** Whether they are set smaller in this cut than was asked, to fit. */
  readonly isSmaller: boolean;
}

/** Undefined where no words stand over it, or while it is not known how light it is. */
export function overStanding(
  piece: Cuttable,
  preset: Pick<CutPreset, 'ratio' | 'width'>,
  lights: Lights | undefined,
): OverStanding | undefined {
  const recipe = recipeForRatio(piece, preset.ratio);
  const { words } = recipe;
  if (!words || !lights) return undefined;
  const size = cutSizeAt(piece, recipe, preset.width);
  const contrast = contrastOver(piece, recipe, words, size, lights);
  const needed = neededContrast(words, size);
  return {
    sentence: sayContrast(contrast, needed, words.plate !== null),
    isFaint: contrast < needed,
    isSmaller: setWords(words, size).isSmaller,
  };
}

/** How words over a picture go out on a target. */
export function sayOverWay(wordsOver: 'text' | 'drawn', targetName: string): string {
  return wordsOver === 'drawn'
    ? `Drawn into the file: the ${targetName} keeps nothing else over a picture.`
    : `Stands on the ${targetName} as text of the page, and not in the file.`;
}
