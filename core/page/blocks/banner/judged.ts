import { heightAtWidth } from '../../../media/dimensions.ts';
import { contrastIn, type Lights, neededAt } from '../../../media/over-contrast.ts';
import { plainText } from '../../inline.ts';
import { shownWidth } from '../../layout.ts';
import { preparedHere, recipeHere, shownSize } from '../../picture.ts';
import type { Piece } from '../../piece.ts';
import type { Room } from '../../room.ts';
import { standsIn } from '../../standing.ts';
import type { RoomContext } from '../kind.ts';
import type { Placement } from '../placement/schema.ts';
import type { Banner } from './schema.ts';
import { LEAST_BANNER_PX, setBanner } from './set.ts';

/** The one picture of a banner; null where it has none, several, or something that is no picture. */
export function pictureOf(
  { content }: Banner,
  pieces: ReadonlyMap<string, Piece>,
): { readonly placement: Placement; readonly piece: Piece } | null {
  const [first, ...more] = content.flatMap((part) => (part.type === 'placement' ? [part.attrs] : []));
  const piece = first && more.length === 0 ? pieces.get(first.asset) : undefined;
  return first && piece?.kind === 'picture' ? { placement: first, piece } : null;
}

export function saysSomething({ content }: Banner): boolean {
  return content.some(
    (part) => part.type === 'bannerWords' && part.content.some((one) => plainText(one.content).trim() !== ''),
  );
}

/** How the words of a banner stand over its picture at one width of the window. */
export interface BannerStanding {
  /** Whether they are higher than the picture. */
  readonly isTall: boolean;
  /** Where it is poorest, and what the words there need (WCAG 2.2, 1.4.3); null while nobody knows how light the picture is. */
  readonly contrast: Contrast | null;
}

export interface Contrast {
  readonly is: number;
  readonly needed: number;
}

export const isPoor = ({ is, needed }: Contrast) => is < needed;

/**
 * Null where the words stand under the picture, or where there is none. `room` is that of the picture. Of a heading and the
 * words under it that which falls shorter of what it needs is told.
 */
export function bannerAt(
  block: Banner,
  { rules, pieces }: RoomContext,
  room: Room,
  viewport: number,
): BannerStanding | null {
  const picture = pictureOf(block, pieces);
  if (!picture) return null;
  const placement = standsIn(picture.placement, room);
  const { piece } = picture;
  const width = Math.round(shownWidth(rules, placement, room, viewport));
  if (width < LEAST_BANNER_PX) return null;
  const size = { width, height: heightAtWidth(shownSize(placement, piece), width) };
  const { lines, isTall } = setBanner(block, size);
  const { ink, plate } = block.attrs;
  // On a plate nothing of the picture is seen under the words.
  const lights = plate ? NO_LIGHTS : piece.lights;
  if (!lights) return { isTall, contrast: null };
  const cuttable = { ...preparedHere(placement, piece), focal: piece.label.focal };
  const recipe = recipeHere(placement, piece);
  const [worst] = [...new Set(lines.map(({ em }) => em))]
    .map((em) => {
      const boxes = lines.filter((line) => line.em === em).map(({ box }) => box);
      return {
        is: contrastIn(cuttable, recipe, { ink, plate }, boxes, size, lights),
        needed: neededAt(em),
      };
    })
    .sort((one, other) => one.is / one.needed - other.is / other.needed);
  return { isTall, contrast: worst ?? null };
}

const NO_LIGHTS: Lights = { columns: 0, rows: 0, rgb: [] };
