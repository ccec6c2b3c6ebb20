import * as v from 'valibot';

/** What names a block, a want or a piece: letters, digits and hyphens, at most 64. */
export const IdSchema = v.pipe(v.string(), v.regex(/^[A-Za-z0-9-]{1,64}$/));
