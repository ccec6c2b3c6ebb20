import * as v from 'valibot';
import { IdSchema } from '../../id.ts';
import { PlacedBlockSchema } from '../placement/schema.ts';

export const TeaserTitleSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(300, 'A title is at most 300 letters long.'),
);
export const TeaserWordsSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(1000, 'What is said of the page is at most 1000 letters long.'),
);

/** What two people make of one teaser may hold more than one picture. */
const MOST_PICTURES = 10;

/**
 * How a page is shown in a listing: a picture of its own cut, alt text and caption, a title, which is that of the page where it
 * is empty, and what is said of the page. It is kept on the sheet, and is no part of the article.
 */
export const TeaserSchema = v.strictObject({
  type: v.literal('teaser'),
  attrs: v.strictObject({ id: IdSchema, title: TeaserTitleSchema, words: TeaserWordsSchema }),
  content: v.pipe(v.array(PlacedBlockSchema), v.maxLength(MOST_PICTURES)),
});
export type Teaser = v.InferOutput<typeof TeaserSchema>;
