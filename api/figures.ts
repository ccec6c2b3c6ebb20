import * as v from 'valibot';
import { IdSchema } from '#core/page/id.ts';
import { FilesAtSchema } from './pages.ts';

/** The arrangements that one piece can stand in elsewhere: those of the sheet that need nothing round them but text. */
export const FIGURE_POSITIONS = ['beside-left', 'beside-right', 'centred', 'column'] as const;

/** How one piece is wanted for use elsewhere: by the rules of which target, where it stands, and where its files will live. */
export const FigureWishSchema = v.strictObject({
  target: IdSchema,
  position: v.picklist(FIGURE_POSITIONS),
  files: v.optional(FilesAtSchema),
});
/** That a figure was copied, and as what. */
export const FigureCopiedSchema = v.strictObject({
  ...FigureWishSchema.entries,
  as: v.picklist(['code', 'picture']),
});
export type FigureWish = v.InferInput<typeof FigureWishSchema>;

/** One piece with its credit: as code, as rich text with the picture in it, and its credit alone as text and as Markdown. */
export const FigureSchema = v.object({
  html: v.string(),
  rich: v.string(),
  credit: v.string(),
  markdown: v.string(),
});
export type Figure = v.InferOutput<typeof FigureSchema>;
