import * as v from 'valibot';
import { AssetSchema } from './assets.ts';
import { PageSummarySchema } from './pages.ts';

const NamedSchema = v.object({ id: v.string(), name: v.string() });

/** To whom an errand was given, by whom, and what they were told. */
const GivenSchema = v.object({ to: NamedSchema, by: NamedSchema, note: v.string(), at: v.string() });
export type Given = v.InferOutput<typeof GivenSchema>;

/** An errand for somebody else, with a note. */
export const GiveErrandSchema = v.strictObject({
  to: v.pipe(v.string(), v.minLength(1, 'Say to whom.'), v.maxLength(36)),
  note: v.pipe(v.string(), v.trim(), v.maxLength(500, 'At most 500 letters fit here.')),
});

/** Something that waits for a person: a sentence, why, and where it is done. */
const ErrandSchema = v.object({
  id: v.string(),
  kind: v.picklist(['words', 'rights', 'want', 'stops', 'handed-in', 'draft', 'run', 'sent']),
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
  given: v.nullable(GivenSchema),
  /** Whether it can be given to somebody else. */
  isGivable: v.boolean(),
});
export type Errand = v.InferOutput<typeof ErrandSchema>;

export const DeskSchema = v.object({
  /** Given to whoever asks first, given to others last. */
  errands: v.array(ErrandSchema),
  /** To whom an errand can be given. */
  colleagues: v.array(NamedSchema),
  pages: v.array(PageSummarySchema),
  recent: v.array(AssetSchema),
  /** How many pieces of the demo hang, and of how many; null where it is whole, or there is none. */
  hanging: v.nullable(v.object({ done: v.number(), of: v.number() })),
});
