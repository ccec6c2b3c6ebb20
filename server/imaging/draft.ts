import { type CutOrder, prepared } from './cut.ts';
import { imageOf, pixelsOf } from './pixels.ts';

/** A quick picture of a cut, for a screen to show until the cut itself is written. */
export interface Draft {
  readonly bytes: Uint8Array;
  readonly mime: string;
}

/** Good enough for a look; a plain JPEG is written in a tenth of the time of any other format. */
const QUALITY = 82;

/** A cut as it looks, written in the quickest way there is: of a picture that moves, its first frame. */
export async function makeDraft(
  path: string,
  order: Pick<CutOrder, 'original' | 'recipe' | 'width'>,
): Promise<Draft> {
  const pixels = await pixelsOf(await prepared(path, order));
  const isClear = pixels.channels === 2 || pixels.channels === 4;
  if (!isClear)
    return { bytes: await imageOf(pixels).jpeg({ quality: QUALITY }).toBuffer(), mime: 'image/jpeg' };
  return {
    bytes: await imageOf(pixels).webp({ quality: QUALITY, effort: 0 }).toBuffer(),
    mime: 'image/webp',
  };
}
