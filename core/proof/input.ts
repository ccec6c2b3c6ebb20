import { EN } from '../messages/en.ts';
import { titleOfHeld } from '../page/embed-here.ts';
import type { PageDoc, Placement } from '../page/model.ts';
import { placementsOf } from '../page/model.ts';
import { type PicturePlan, type Piece, planPicture } from '../page/picture.ts';
import type { HouseRules } from '../page/target.ts';

/** A page with all that its proof rests on. `html` is what would go out. */
export interface ProofInput {
  readonly page: PageDoc;
  readonly rules: HouseRules;
  readonly pieces: ReadonlyMap<string, Piece>;
  readonly html: string;
}

/** A placement together with its piece and the plan of its picture. */
export interface Placed {
  readonly placement: Placement;
  readonly piece: Piece;
  readonly plan: PicturePlan;
}

/** Settled once for each input, since nearly every check needs them. */
const settled = new WeakMap<ProofInput, readonly Placed[]>();

/** The placements whose piece is on the shelf, in reading order. */
export function placedOf(input: ProofInput): readonly Placed[] {
  const known = settled.get(input);
  if (known) return known;
  const placed = placementsOf(input.page).flatMap((placement) => {
    const piece = input.pieces.get(placement.asset);
    return piece ? [{ placement, piece, plan: planPicture(input.rules, placement, piece) }] : [];
  });
  settled.set(input, placed);
  return placed;
}

/** What a piece is called in a sentence: its title, or its file name. */
export function callPiece({ label, embed, stem, extension }: Piece): string {
  // An embed is no file; only its poster is.
  return label.title || (embed ? titleOfHeld(embed, EN) : `${stem}.${extension}`);
}

export function atPlacement(placement: Placement): {
  readonly kind: 'placement';
  readonly placementId: string;
} {
  return { kind: 'placement', placementId: placement.id };
}
