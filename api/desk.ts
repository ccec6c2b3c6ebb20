import * as v from 'valibot';
import { AssetSchema } from './assets.ts';
import { PageSummarySchema } from './pages.ts';

/** Something that waits for a person: a sentence, why, and where it is done. */
const ErrandSchema = v.object({
  id: v.string(),
  kind: v.picklist(['words', 'rights', 'want', 'stops', 'handed-in', 'draft', 'run']),
  before: v.string(),
  subject: v.string(),
  after: v.string(),
  detail: v.string(),
  /** When the page is due (YYYY-MM-DD), or null. */
  due: v.nullable(v.string()),
  action: v.string(),
  address: v.string(),
  thumb: v.nullable(v.string()),
  count: v.nullable(v.number()),
});
export type Errand = v.InferOutput<typeof ErrandSchema>;

export const DeskSchema = v.object({
  errands: v.array(ErrandSchema),
  pages: v.array(PageSummarySchema),
  recent: v.array(AssetSchema),
  /** How many pieces of the demo hang, and of how many; null where it is whole, or there is none. */
  hanging: v.nullable(v.object({ done: v.number(), of: v.number() })),
});
