import type { CropRect } from './crop.ts';
import { sayOver } from './over-words.ts';
import type { Prep, PrepStep, Recipe } from './recipe.ts';
import { isPlainTone, type Tone } from './tone.ts';

export type Change = 'cropped' | 'straightened' | 'mirrored' | 'toned' | 'sharpened' | 'lettered';

/**
 * What a recipe changes of what is seen, which licences may forbid and credits may have to say. Turning by quarters
 * and leaving out a border that a scan or a page put round the picture take nothing of the work away, and are none.
 */
export function changesOf(recipe: Recipe): readonly Change[] {
  const changes: Change[] = [];
  if (recipe.crop) changes.push('cropped');
  if (recipe.straighten !== 0) changes.push('straightened');
  if (recipe.mirror) changes.push('mirrored');
  if (recipe.tone) changes.push('toned');
  if (recipe.sharpness > 0) changes.push('sharpened');
  if (recipe.words) changes.push('lettered');
  return changes;
}

/** The steps of a prep as sentences, in the order in which they are done; those that do nothing are left out. */
export function stepsOf(
  prep: Prep,
  sayTone: (tone: Tone) => string,
): readonly { step: PrepStep; says: string }[] {
  const steps: { step: PrepStep; says: string }[] = [];
  const turned = prep.turn === 0 ? '' : `Turned by ${prep.turn}° clockwise`;
  if (turned || prep.mirror)
    steps.push({ step: 'turn', says: [turned, prep.mirror ? 'mirrored' : ''].filter(Boolean).join(' and ') });
  if (prep.straighten !== 0)
    steps.push({ step: 'straighten', says: `Straightened by ${(prep.straighten / 10).toFixed(1)}°` });
  if (prep.crop) steps.push({ step: 'crop', says: `Cropped to ${sayPart(prep.crop)} of it for every use` });
  if (prep.frames.length > 0) {
    const shapes = prep.frames.map(({ ratio }) => `${ratio.across}:${ratio.down}`).join(', ');
    steps.push({ step: 'frames', says: `Framed by hand for ${shapes}` });
  }
  if (!isPlainTone(prep.tone)) steps.push({ step: 'tone', says: `Toned: ${sayTone(prep.tone)}` });
  if (prep.sharpness > 0) steps.push({ step: 'sharpness', says: `Sharpened by ${prep.sharpness}` });
  if (prep.backgroundColour)
    steps.push({
      step: 'backgroundColour',
      says: `Laid on ${prep.backgroundColour} where it is transparent`,
    });
  if (prep.words) steps.push({ step: 'words', says: sayOver(prep.words) });
  return steps.map(({ step, says }) => ({ step, says: `${says.charAt(0).toUpperCase()}${says.slice(1)}.` }));
}

const sayPart = ({ width, height }: CropRect) => `${Math.max(1, Math.round(width * height * 100))}%`;
