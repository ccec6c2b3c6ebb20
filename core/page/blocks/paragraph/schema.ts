import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { InlinesSchema } from '../../inline.ts';

export const ParagraphSchema = v.strictObject({
  type: v.literal('paragraph'),
  attrs: v.strictObject({ id: IdSchema }),
  content: InlinesSchema,
});
export type Paragraph = v.InferOutput<typeof ParagraphSchema>;
