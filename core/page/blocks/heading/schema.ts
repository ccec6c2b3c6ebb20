import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { InlinesSchema } from '../../inline.ts';

/** Levels of headings in a page's text; the first is that of its title. */
export const HEADING_LEVELS = [2, 3, 4] as const;
export type HeadingLevel = (typeof HEADING_LEVELS)[number];

export const HeadingSchema = v.strictObject({
  type: v.literal('heading'),
  attrs: v.strictObject({ id: IdSchema, level: v.picklist(HEADING_LEVELS) }),
  content: InlinesSchema,
});
export type Heading = v.InferOutput<typeof HeadingSchema>;
