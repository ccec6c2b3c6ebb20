import { EN } from '../messages/en.ts';
import type { Placement } from '../page/blocks/placement/schema.ts';
import { titleOfHeld } from '../page/embed-here.ts';
import type { PageDoc } from '../page/model.ts';
import type { LinkedPages } from '../page/page-address.ts';
import { type PicturePlan, planPicture } from '../page/picture.ts';
import type { Piece } from '../page/piece.ts';
import type { Standing } from '../page/standing.ts';
import type { HouseRules } from '../page/target.ts';
import { placementsOf, standingsOf } from '../page/walk.ts';
import { writeFragment } from '../page/write.ts';

/** A page with all that its proof rests on. `html` is what would go out, each block with its ID on it (`isMarked`). */
export interface ProofInput {
  readonly page: PageDoc;
  readonly rules: HouseRules;
  readonly pieces: ReadonlyMap<string, Piece>;
  /** The pages that it may link to; absent while they are not known. */
  readonly pages?: LinkedPages;
  readonly html: string;
  /** The moment it is looked at: terms begin and end. */
  readonly now: Date;
}

/** A page for its proof, with the HTML that would go out. */
export function proofInput(
  page: PageDoc,
  rules: HouseRules,
  pieces: ReadonlyMap<string, Piece>,
  now: Date,
  pages?: LinkedPages,
): ProofInput {
  const known = pages ? { pages } : {};
  const html = writeFragment(page, {
    rules,
    pieces,
    ...known,
    addressOf: (cut) => cut.fileName,
    isMarked: true,
  });
  return { page, rules, pieces, ...known, html, now };
}

/** A placement in its room, together with its piece and the plan of its picture. */
export interface Placed extends Standing {
  readonly piece: Piece;
  readonly plan: PicturePlan;
}

/** Settled once for each input, since nearly every check needs them. */
const settled = new WeakMap<ProofInput, readonly Placed[]>();

/** The placements whose piece is on the shelf, in reading order. */
export function placedOf(input: ProofInput): readonly Placed[] {
  const known = settled.get(input);
  if (known) return known;
  const placed = standingsOf(input.page, input).flatMap((standing) => {
    const piece = input.pieces.get(standing.placement.asset);
    return piece ? [{ ...standing, piece, plan: planPicture(input.rules, standing, piece) }] : [];
  });
  settled.set(input, placed);
  return placed;
}

/** Those of them that readers get with the page itself, and not in a listing. */
export function inArticle(input: ProofInput): readonly Placed[] {
  const teaser = new Set(placementsOf({ blocks: teasersOf(input.page) }).map(({ id }) => id));
  return placedOf(input).filter(({ placement }) => !teaser.has(placement.id));
}

const teasersOf = ({ blocks }: PageDoc) => blocks.filter(({ type }) => type === 'teaser');

/** What a piece is called in a sentence: its title, or its file name. */
export function callPiece(piece: Piece): string {
  const { label, stem, extension } = piece;
  // An embed is no file; only its poster is.
  return label.title || (piece.kind === 'embed' ? titleOfHeld(piece.embed, EN) : `${stem}.${extension}`);
}

export function atPlacement(placement: Placement): {
  readonly kind: 'placement';
  readonly placementId: string;
} {
  return { kind: 'placement', placementId: placement.id };
}
