import * as v from 'valibot';
import { IdSchema } from '../../id.ts';

/** Lines that are shown letter by letter, with their breaks and blanks as they are. */
export const CodeBlockSchema = v.strictObject({
  type: v.literal('codeBlock'),
  attrs: v.strictObject({ id: IdSchema }),
  content: v.exactOptional(
    v.array(v.strictObject({ type: v.literal('text'), text: v.pipe(v.string(), v.minLength(1)) })),
  ),
});
export type CodeBlock = v.InferOutput<typeof CodeBlockSchema>;
