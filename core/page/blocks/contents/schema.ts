import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { HEADING_LEVELS } from '../heading/schema.ts';

/** A list of the page's headings, each a link to it, down to a level. */
export const ContentsSchema = v.strictObject({
  type: v.literal('contents'),
  attrs: v.strictObject({ id: IdSchema, deepest: v.picklist(HEADING_LEVELS) }),
});
export type Contents = v.InferOutput<typeof ContentsSchema>;
