import * as v from 'valibot';
import { CUT_FORMATS, type CutFormat } from '../media/formats.ts';
import { PrepSchema } from '../media/recipe.ts';
import { NamePatternSchema } from '../naming/parts.ts';
import { SizeWishSchema } from './size-wish.ts';

/** The most pieces that one run takes. */
const RUN_LIMIT = 2000;

const FORMATS = Object.keys(CUT_FORMATS) as [CutFormat, ...CutFormat[]];
const wishes = v.pipe(v.array(SizeWishSchema), v.maxLength(12));
const id = v.pipe(v.string(), v.minLength(1), v.maxLength(36));
const words = v.pipe(v.string(), v.maxLength(80));

/** How names are made: by a pattern for all or only for those that nobody named, or by search and replace. */
const NamingSchema = v.variant('by', [
  v.strictObject({
    by: v.literal('pattern'),
    pattern: NamePatternSchema,
    which: v.picklist(['all', 'unnamed']),
  }),
  v.strictObject({ by: v.literal('replace'), search: words, replace: words, titles: v.boolean() }),
]);
export type Naming = v.InferOutput<typeof NamingSchema>;

/** What differs for one piece of a run. */
const RowChoiceSchema = v.strictObject({
  leftOut: v.optional(v.boolean()),
  stem: v.optional(v.pipe(v.string(), v.maxLength(200))),
});

/**
 * What is to be done to many pieces at once, as data. Null parts stay as they are. `portrait` null sizes upright
 * pictures like the others; `sharp` makes each size at twice its pixels as well. `quality` null is the House rules'.
 */
export const RunOrderSchema = v.strictObject({
  pieces: v.pipe(
    v.array(id),
    v.minLength(1, 'A run needs at least one piece.'),
    v.maxLength(RUN_LIMIT, `A run takes at most ${RUN_LIMIT} pieces.`),
  ),
  targetId: id,
  sizes: wishes,
  portrait: v.nullable(wishes),
  sharp: v.boolean(),
  formats: v.pipe(v.array(v.picklist(FORMATS)), v.minLength(1), v.maxLength(FORMATS.length)),
  quality: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(20), v.maxValue(100))),
  recipe: v.nullable(v.strictObject({ from: v.pipe(v.string(), v.maxLength(300)), prep: PrepSchema })),
  naming: v.nullable(NamingSchema),
  folder: v.nullable(v.pipe(v.string(), v.maxLength(500))),
  /** Into a ZIP: the shelf stays as it is, and names, recipe and folder hold for the files alone. */
  into: v.picklist(['shelf', 'zip']),
  rows: v.record(id, RowChoiceSchema),
});
export type RunOrder = v.InferOutput<typeof RunOrderSchema>;

/** The order that does nothing yet, for a target. */
export function plainOrder(targetId: string, pieces: readonly string[]): RunOrder {
  return {
    pieces: [...pieces],
    targetId,
    sizes: [],
    portrait: null,
    sharp: false,
    formats: ['avif', 'jpeg'],
    quality: null,
    recipe: null,
    naming: null,
    folder: null,
    into: 'shelf',
    rows: {},
  };
}
