import * as v from 'valibot';
import { EMBED_FORMS } from '#core/embed/forms.ts';
import { HostDecisionSchema, HostEntriesSchema } from '#core/embed/host.ts';
import { MOST_PASTED } from '#core/embed/limits.ts';
import { EmbedSchema } from '#core/embed/model.ts';
import { PERMISSIONS } from '#core/embed/permissions.ts';

/** The hosts that the house trusts. */
export const HostsSchema = v.object({
  version: v.number(),
  entries: HostEntriesSchema,
  decisions: v.array(HostDecisionSchema),
});
export type HostsAnswer = v.InferOutput<typeof HostsSchema>;

export const SaveHostsSchema = v.strictObject({ entries: HostEntriesSchema });

/** A decision to let one address, or a whole host, be framed. */
export const DecideSchema = v.strictObject({
  scope: v.picklist(['address', 'host']),
  address: v.pipe(v.string(), v.maxLength(2000)),
  reason: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say why it is trusted.'), v.maxLength(300)),
});
export const UndecideSchema = v.strictObject({ scope: v.picklist(['address', 'host']), value: v.string() });

/** Whose picture the poster of an embed is. */
export const PosterSchema = v.picklist(['host', 'drawn']);

export const FramingSchema = v.variant('kind', [
  v.object({ kind: v.literal('may'), why: v.picklist(['nothing-said', 'named']) }),
  v.object({
    kind: v.literal('refused'),
    by: v.picklist(['X-Frame-Options', 'Content-Security-Policy']),
    value: v.string(),
  }),
  v.object({ kind: v.literal('gone'), status: v.number() }),
  v.object({ kind: v.literal('private'), status: v.number() }),
  v.object({ kind: v.literal('silent'), status: v.number() }),
]);

/** What is asked of the other site. */
export const LookWishSchema = v.strictObject({ embed: EmbedSchema });

/** What the other site says of a thing: its facts, its poster, and whether it lets itself be framed by each target. */
export const LookSchema = v.object({
  /** The embed with what its host says of it. */
  embed: EmbedSchema,
  /** Where its poster can be looked at without the browser going there, or null. */
  poster: v.nullable(v.string()),
  framing: v.array(v.object({ target: v.string(), framing: FramingSchema })),
  /** What went otherwise than it should, each a sentence. */
  notes: v.array(v.string()),
});
export type Look = v.InferOutput<typeof LookSchema>;

/** Puts an embed on the shelf. */
export const KeepEmbedSchema = v.strictObject({
  embed: EmbedSchema,
  folder: v.optional(v.pipe(v.string(), v.maxLength(420)), ''),
});

/** Which host is asked for films, by which words. */
export const FilmQuerySchema = v.strictObject({
  host: v.pipe(v.string(), v.maxLength(40)),
  words: v.pipe(v.string(), v.trim(), v.minLength(1, 'Say what to look for.'), v.maxLength(200)),
});
const FoundFilmSchema = v.object({
  title: v.string(),
  author: v.string(),
  seconds: v.nullable(v.number()),
  page: v.string(),
  poster: v.nullable(v.string()),
});
export type FoundFilm = v.InferOutput<typeof FoundFilmSchema>;
export const FoundFilmsSchema = v.object({ films: v.array(FoundFilmSchema) });

/** An embed in one form, to be looked at live. */
export const PreviewWishSchema = v.strictObject({
  embed: EmbedSchema,
  target: v.pipe(v.string(), v.maxLength(36)),
  form: v.picklist(EMBED_FORMS),
});
export const EmbedPreviewSchema = v.object({ address: v.string() });

/** Something that was pasted, to be read for a target. */
export const ReadingWishSchema = v.strictObject({
  text: v.pipe(
    v.string(),
    v.maxLength(
      MOST_PASTED,
      'At most 1,000 kB are read at once. Paste only the part that the host offers as embed code.',
    ),
  ),
  target: v.string(),
});

/** What was read from a pasted text, the code that goes out for the target, and what was left out. */
export const ReadingSchema = v.object({
  things: v.array(
    v.object({
      from: v.string(),
      embed: EmbedSchema,
      trust: v.picklist(['entry', 'decision', 'none']),
      notGiven: v.array(v.picklist(PERMISSIONS)),
      unknown: v.array(v.object({ name: v.string(), value: v.string(), means: v.string() })),
      tracking: v.array(v.string()),
      notes: v.array(v.string()),
      framing: v.nullable(FramingSchema),
      form: v.picklist(EMBED_FORMS),
      code: v.string(),
    }),
  ),
  leftOut: v.array(v.object({ text: v.string(), why: v.string() })),
  refusals: v.array(v.string()),
});
