import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { GapSchema } from '../gap.ts';
import { PlacedBlockSchema } from '../placement/schema.ts';

/** How many pictures stand in a row where the window has room. */
export const GALLERY_PER_ROW = [2, 3, 4, 5, 6] as const;
export type GalleryPerRow = (typeof GALLERY_PER_ROW)[number];

/** Px between pictures. */
export const GALLERY_GAP = 8;

/** So many are put into one on the sheet; a page that comes from elsewhere may have more. */
export const GALLERY_LIMIT = 200;
const MOST_PICTURES = 1000;

export const GalleryCaptionSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(2000, 'A caption has at most 2,000 letters.'),
);

/** Pictures in rows, each row of one height: of their own shapes, or an even grid where all are cut to one. */
export const GallerySchema = v.strictObject({
  type: v.literal('gallery'),
  attrs: v.strictObject({
    id: IdSchema,
    perRow: v.picklist(GALLERY_PER_ROW),
    gap: GapSchema,
    /** What is said under all of them; empty for nothing. */
    caption: GalleryCaptionSchema,
  }),
  content: v.pipe(v.array(PlacedBlockSchema), v.maxLength(MOST_PICTURES)),
});
export type Gallery = v.InferOutput<typeof GallerySchema>;

/** So many beside each other that no row is left with one, at most four. */
export function galleryPerRow(count: number): GalleryPerRow {
  if (count <= 2) return 2;
  if (count === 5) return 5;
  return GALLERY_PER_ROW.find((perRow) => perRow <= 4 && perRow > 2 && count % perRow !== 1) ?? 4;
}

/** So many stand in a row on a phone. */
export const PER_ROW_NARROW = 2;

/** A picture in a full row is wider than this, or fewer stand in it. */
const LEAST_PICTURE_PX = 100;

/** The window in px under which fewer pictures stand in a row. */
export function galleryNarrowBelow(
  perRow: GalleryPerRow,
  { stackBelow, gutter }: Readonly<Record<'stackBelow' | 'gutter', number>>,
): number {
  if (perRow <= PER_ROW_NARROW) return 0;
  return Math.max(stackBelow, perRow * LEAST_PICTURE_PX + (perRow - 1) * GALLERY_GAP + 2 * gutter);
}
