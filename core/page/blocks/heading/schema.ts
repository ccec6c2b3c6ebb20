import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { InlinesSchema } from '../../inline.ts';

/** Levels of headings in a page's text; the first is that of its title. */
export const HEADING_LEVELS = [2, 3, 4] as const;
export type HeadingLevel = (typeof HEADING_LEVELS)[number];

/** A name for a place on a page, as it stands in an address behind the #. */
export const AnchorSchema = v.pipe(
  v.string(),
  v.trim(),
  v.regex(
    /^[a-z][a-z0-9-]{0,79}$/,
    'An anchor is of small letters, digits and hyphens, and begins with a letter.',
  ),
);

export const HeadingSchema = v.strictObject({
  type: v.literal('heading'),
  attrs: v.strictObject({
    id: IdSchema,
    level: v.picklist(HEADING_LEVELS),
    /** The name that links know it by, whatever it says; without one it goes by its words. */
    anchor: v.optional(AnchorSchema),
  }),
  content: InlinesSchema,
});
export type Heading = v.InferOutput<typeof HeadingSchema>;
