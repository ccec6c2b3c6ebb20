import * as v from 'valibot';
import { SafeAddressSchema } from './address.ts';
import { EMBED_KINDS, type EmbedKind, EmbedShapeSchema } from './host.ts';
import { PERMISSIONS } from './permissions.ts';
import { sharedParameter } from './shared-parameters.ts';

/** How a thing comes to readers when nothing stands in its way. */
const CARRIERS = ['frame', 'widget', 'video', 'audio', 'link'] as const;
export type Carrier = (typeof CARRIERS)[number];

/** Who can see a thing at its host. */
const VISIBILITIES = ['public', 'by-link', 'private', 'unknown'] as const;
export type Visibility = (typeof VISIBILITIES)[number];

const values = v.record(v.pipe(v.string(), v.maxLength(60)), v.pipe(v.string(), v.maxLength(1500)));
const line = v.pipe(v.string(), v.trim(), v.maxLength(300, 'At most 300 letters fit here.'));

/** A typed description of a framed thing, from which code is written; never the pasted code itself. */
export const EmbedSchema = v.strictObject({
  kind: v.picklist(EMBED_KINDS),
  carrier: v.picklist(CARRIERS),
  /** The entry of its host, or null. */
  host: v.nullable(v.pipe(v.string(), v.maxLength(40))),
  /** What is framed or played, without the parameters that are kept beside it. */
  address: SafeAddressSchema,
  /** What a reader opens who follows a link. */
  page: SafeAddressSchema,
  /** Values by the names of the entry's parameters, or of those that many hosts share, as they are written into the address. */
  parameters: values,
  /** Parameters that no entry knows and that somebody kept. */
  kept: values,
  /** What a screen reader says before the frame. */
  title: line,
  /** What stood under it where it came from. */
  caption: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(600)), ''),
  shape: EmbedShapeSchema,
  loadOnClick: v.boolean(),
  /** What it gets beyond what its host's entry needs, because somebody allowed it. */
  allowed: v.pipe(v.array(v.picklist(PERMISSIONS)), v.maxLength(PERMISSIONS.length)),
  /** What its host says of it. */
  facts: v.strictObject({
    title: line,
    author: line,
    thumbnail: v.union([v.literal(''), SafeAddressSchema]),
    seconds: v.nullable(v.pipe(v.number(), v.minValue(0), v.maxValue(1_000_000))),
    captions: v.pipe(v.array(v.pipe(v.string(), v.maxLength(40))), v.maxLength(60)),
    visibility: v.picklist(VISIBILITIES),
  }),
});
export type Embed = v.InferOutput<typeof EmbedSchema>;
export type EmbedFacts = Embed['facts'];

/**
 * By what the same thing is known again, whatever its settings. Where no entry says what of an address names a thing, all
 * of its query may but what many hosts share as settings.
 */
export function identityOf({ address, page, host }: Pick<Embed, 'address' | 'page' | 'host'>): string {
  if (host !== null) return address;
  const named = [...new URL(page).searchParams].filter(
    ([name, value]) => sharedParameter(name, value)?.says !== 'setting',
  );
  const query = named.length > 0 ? `?${new URLSearchParams(named)}` : '';
  if (address !== page) return `${address} ${query}`.trimEnd();
  const link = new URL(page);
  link.search = query;
  return link.href;
}

export const NO_FACTS: EmbedFacts = {
  title: '',
  author: '',
  thumbnail: '',
  seconds: null,
  captions: [],
  visibility: 'unknown',
};

const KIND_WORDS: Readonly<Record<EmbedKind, string>> = {
  film: 'film',
  sound: 'recording',
  map: 'map',
  form: 'form',
  board: 'board',
  feed: 'feed',
  page: 'page',
};

export function sayKind(kind: EmbedKind): string {
  return KIND_WORDS[kind];
}
