import { shownSize } from '../../picture.ts';
import type { Piece } from '../../piece.ts';
import type { Part } from '../../room.ts';
import type { PlacedBlock } from '../placement/schema.ts';
import { type Gallery, PER_ROW_NARROW } from './schema.ts';

/** Shares are said with so many digits, cut off: rounded up, the last picture of a row would not fit into it. */
const DIGITS = 1e5;

/**
 * The part of a row that each picture gets, so that those of one row are of one height and fill it: its share is its width
 * to height (`aspects`) of the row's sum. A last row that is not full is as high as the one before it, unless its pictures
 * are too wide for that. `gap` in px.
 */
export function rowParts(aspects: readonly number[], perRow: number, gap: number): readonly Part[] {
  const parts: Part[] = [];
  let before: Row | null = null;
  for (let at = 0; at < aspects.length; at += perRow) {
    const members = aspects.slice(at, at + perRow);
    const own: Row = { sum: members.reduce((sum, aspect) => sum + aspect, 0), count: members.length };
    const row: Row = before && own.count < before.count && own.sum < before.sum ? before : own;
    for (const aspect of members)
      parts.push({ share: Math.floor((aspect / row.sum) * DIGITS) / DIGITS, gaps: gap * (row.count - 1) });
    before = own;
  }
  return parts;
}

interface Row {
  readonly sum: number;
  readonly count: number;
}

/** The parts of a gallery's pictures, by their place in it: in wide windows and in narrow ones. */
export interface GalleryParts {
  readonly wide: readonly Part[];
  readonly narrow: readonly Part[];
}

/** The parts of the pictures of a gallery that are on the shelf; one that is gone takes no room and has none. */
export function galleryParts(
  { attrs: { perRow, gap }, content }: Gallery,
  pieces: ReadonlyMap<string, Piece>,
): GalleryParts {
  const known = content.flatMap(({ attrs }, at) => {
    const piece = pieces.get(attrs.asset);
    return piece ? [{ at, aspect: aspectOf(attrs, piece) }] : [];
  });
  const aspects = known.map(({ aspect }) => aspect);
  const spread = (parts: readonly Part[]) => {
    const all: Part[] = content.map(() => ({ share: 1, gaps: 0 }));
    for (const [place, { at }] of known.entries()) all[at] = parts[place] ?? { share: 1, gaps: 0 };
    return all;
  };
  return {
    wide: spread(rowParts(aspects, perRow, gap)),
    narrow: spread(rowParts(aspects, Math.min(perRow, PER_ROW_NARROW), gap)),
  };
}

/** Width to height of what is shown of a piece. */
function aspectOf(placement: PlacedBlock['attrs'], piece: Piece): number {
  const { width, height } = shownSize(placement, piece);
  return height > 0 && width > 0 ? width / height : 1;
}

/** The parts of one picture as custom properties, for the style of the gallery. */
export function partStyle({ wide, narrow }: { readonly wide: Part; readonly narrow: Part }): string {
  return `--s:${wide.share};--g:${wide.gaps}px;--n:${narrow.share};--m:${narrow.gaps}px`;
}
