import * as v from 'valibot';
import { IdSchema } from '#core/page/id.ts';
import { PageDocSchema, WantSchema } from '#core/page/model.ts';
import { RulesOnPageSchema } from '#core/page/target.ts';
import { RealDaySchema } from '#core/rights/terms.ts';
import { LanguageTagSchema } from '#core/words/language-tag.ts';
import { AssetSchema } from './assets.ts';
import { TargetSchema } from './targets.ts';

export const NewPageSchema = v.strictObject({
  title: v.pipe(v.string(), v.trim(), v.minLength(1, 'Give the page a title.'), v.maxLength(300)),
  targetId: v.string(),
  wants: v.pipe(v.array(WantSchema), v.maxLength(50)),
  /** When it is due (YYYY-MM-DD), or left out for no date yet. */
  due: v.optional(v.nullable(RealDaySchema), null),
});
export type NewPage = v.InferOutput<typeof NewPageSchema>;

const stationCounts = v.array(
  v.object({ id: v.string(), name: v.string(), done: v.number(), of: v.number() }),
);

export const PageSummarySchema = v.object({
  id: v.string(),
  title: v.string(),
  targetName: v.string(),
  /** The language that it is in, where that is another than its target's. */
  language: v.nullable(v.string()),
  version: v.number(),
  due: v.nullable(v.string()),
  updatedAt: v.string(),
  updatedBy: v.string(),
  stations: stationCounts,
  thumb: v.nullable(v.string()),
  stops: v.number(),
  /** Why it cannot be opened; null for a sound one. */
  fault: v.nullable(v.string()),
});
export type PageSummary = v.InferOutput<typeof PageSummarySchema>;

/** Most pages that one answer lists. */
export const MOST_PAGES_LISTED = 500;

/** Which pages are asked for: those whose titles hold each of the words, in any order. */
export const PageListQuerySchema = v.strictObject({
  words: v.optional(v.pipe(v.string(), v.maxLength(300))),
});

/** Pages, the last changed first, at most `MOST_PAGES_LISTED`; `count` says how many there are of what was asked for. */
export const PageListSchema = v.object({ pages: v.array(PageSummarySchema), count: v.number() });
export type PageList = v.InferOutput<typeof PageListSchema>;

/** Where every page stands on its site (`address`, empty where nobody has said so), for links from one to another. */
export const PageAddressesSchema = v.array(
  v.object({
    id: v.string(),
    targetId: v.string(),
    title: v.string(),
    address: v.string(),
    language: v.string(),
  }),
);

export const PageSchema = v.object({
  id: v.string(),
  version: v.number(),
  doc: PageDocSchema,
  target: v.object({ ...TargetSchema.entries, rules: RulesOnPageSchema }),
  pieces: v.array(AssetSchema),
  /** Where uses with a recipe of their own are to be seen, by asset and the key of that recipe. */
  ownViews: v.record(v.string(), v.string()),
  updatedAt: v.string(),
  updatedBy: v.string(),
  due: v.nullable(v.string()),
});
export type Page = v.InferOutput<typeof PageSchema>;

export const SavePageSchema = v.strictObject({ doc: PageDocSchema });

/** Pieces to put on a page's tray, the first of them into a want, or to take off it. */
export const ChangeTraySchema = v.strictObject({
  add: v.pipe(v.array(v.string()), v.maxLength(500)),
  remove: v.pipe(v.array(v.string()), v.maxLength(500)),
  wantId: v.nullable(v.string()),
});

export const SavedPageSchema = v.object({ version: v.number(), updatedAt: v.string() });

/** What a clash (412) carries besides the problem: the state that was saved meanwhile. */
export const PageClashSchema = v.looseObject({
  detail: v.string(),
  current: v.object({
    version: v.number(),
    doc: PageDocSchema,
    updatedBy: v.string(),
    updatedAt: v.string(),
  }),
});
export type PageClash = v.InferOutput<typeof PageClashSchema>;

/** Addresses of the proof's frames, on the origin that serves page previews. */
export const PreviewSchema = v.object({
  /** Where its teaser can be seen in a listing; null for a page without one. */
  listing: v.nullable(v.string()),
  address: v.string(),
  version: v.number(),
  firstLoadBytes: v.number(),
  isMeasured: v.boolean(),
});

/** `unfinished` asks for the code of a page that cannot go out yet, knowingly; it comes marked as such. */
const yes = v.optional(v.literal('yes'));

/** Where files of a page lie: a whole web address, or a path on the site that takes them; with a slash at its end. */
export const FilesAtSchema = v.pipe(
  v.string(),
  v.trim(),
  v.maxLength(500),
  v.regex(
    /^(?:https?:\/\/[^\s"'<>]+|\/[^\s"'<>]*|[\w.~-][^\s"'<>:]*)?$/,
    'Say where the files will live as https://... or /media/.',
  ),
  v.transform((at) => (at === '' || at.endsWith('/') ? at : `${at}/`)),
);

/** How the HTML of a page is wanted: where its files will live, and what the page that takes it has itself. */
export const FragmentQuerySchema = v.strictObject({
  unfinished: yes,
  files: v.optional(FilesAtSchema, 'media/'),
  inline: yes,
  untitled: yes,
});
export type FragmentWish = v.InferInput<typeof FragmentQuerySchema>;

/** `stops` are the sentences of what stops the page from going out. */
export const FragmentSchema = v.object({ html: v.string(), css: v.string(), stops: v.array(v.string()) });

/** What a kept state of a page is called. */
const VersionNameSchema = v.pipe(
  v.string(),
  v.trim(),
  v.minLength(1, 'Give the version a name, as “Before the second walk”.'),
  v.maxLength(200, 'A name of a version has at most 200 letters.'),
);

export const NameVersionSchema = v.strictObject({ name: VersionNameSchema });

/** A kept state of a page: named by a person, gone out (`sent` says how it did last), or both. */
export const PageVersionSchema = v.object({
  id: v.string(),
  name: v.string(),
  sent: v.nullable(v.string()),
  sentAt: v.nullable(v.string()),
  keptAt: v.string(),
  keptBy: v.string(),
});
export type PageVersion = v.InferOutput<typeof PageVersionSchema>;

/** The newest first, at most `MOST_VERSIONS_LISTED`; `count` says how many there are. */
export const PageVersionListSchema = v.object({ versions: v.array(PageVersionSchema), count: v.number() });
export const MOST_VERSIONS_LISTED = 200;

/** A kept state with what it shows. */
export const KeptStateSchema = v.object({
  version: PageVersionSchema,
  doc: PageDocSchema,
  pieces: v.array(AssetSchema),
  ownViews: v.record(v.string(), v.string()),
});
export type KeptState = v.InferOutput<typeof KeptStateSchema>;

/** A window that has a page open, and the block in it that is worked on; `block` is null where that is none. */
export const SittingSchema = v.strictObject({
  id: v.pipe(v.string(), v.uuid('A sitting is known by a UUID.')),
  block: v.nullable(IdSchema),
  /** The window is being closed. */
  left: v.optional(v.boolean(), false),
});

/** Who else has the page open and where they are, and the version that stands. */
export const AtPageSchema = v.object({
  version: v.number(),
  others: v.array(v.object({ id: v.string(), name: v.string(), block: v.nullable(v.string()) })),
});
export type AtPage = v.InferOutput<typeof AtPageSchema>;

/** A translation to begin: its language, and the target that it is for; that of the original without one. */
export const NewTranslationSchema = v.strictObject({
  language: LanguageTagSchema,
  targetId: v.optional(v.nullable(v.string()), null),
});

/** The same page in other languages, the original first. */
const SisterSchema = v.object({
  id: v.string(),
  title: v.string(),
  language: v.string(),
  targetName: v.string(),
  isOriginal: v.boolean(),
});
export type Sister = v.InferOutput<typeof SisterSchema>;

/** `translation` says of what the page is one, the state of that which it says (`base`) and how that is now; null for none. */
export const SistersSchema = v.object({
  language: v.string(),
  sisters: v.array(SisterSchema),
  translation: v.nullable(
    v.object({
      version: v.number(),
      originalId: v.string(),
      originalLanguage: v.string(),
      base: PageDocSchema,
      original: PageDocSchema,
      pieces: v.array(AssetSchema),
      ownViews: v.record(v.string(), v.string()),
    }),
  ),
});
export type Sisters = v.InferOutput<typeof SistersSchema>;

/** Up to which state of its original a translation was brought. */
export const TranslatedSchema = v.strictObject({ base: PageDocSchema });
export const TranslatedVersionSchema = v.object({ version: v.number() });
