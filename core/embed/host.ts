import * as v from 'valibot';
import { readWebAddress, SafeAddressSchema } from './address.ts';
import { HEIGHT_LIMITS } from './limits.ts';
import { ParameterSchema } from './parameters.ts';
import { PERMISSIONS, SANDBOX_TOKENS } from './permissions.ts';

/** What an embedded thing is. */
export const EMBED_KINDS = ['film', 'sound', 'map', 'form', 'board', 'feed', 'page'] as const;
export type EmbedKind = (typeof EMBED_KINDS)[number];

const whole = (least: number, most: number) =>
  v.pipe(v.number(), v.integer(), v.minValue(least), v.maxValue(most));

/** The room a thing takes: a shape that it keeps at any width, or a height in px for what has none. */
export const EmbedShapeSchema = v.variant('kind', [
  v.strictObject({ kind: v.literal('ratio'), across: whole(1, 10_000), down: whole(1, 10_000) }),
  v.strictObject({ kind: v.literal('height'), px: whole(HEIGHT_LIMITS.least, HEIGHT_LIMITS.most) }),
]);
export type EmbedShape = v.InferOutput<typeof EmbedShapeSchema>;

const HOST_NAME = /^(\*\.)?[a-z0-9]([a-z0-9.-]{0,250}[a-z0-9])?(:\d{1,5})?$/;
/** An exact host name, or `*.` and the end of one, with a port where it is not the usual one. */
const HostNameSchema = v.pipe(
  v.string(),
  v.regex(HOST_NAME, 'A host is written as films.example or *.films.example.'),
);

const PathSchema = v.pipe(
  v.string(),
  v.maxLength(200),
  v.regex(
    /^\/(?!\/)[A-Za-z0-9_.~{}/-]*$/,
    'A path begins with / and has {id} where the name of a thing stands.',
  ),
  v.check(
    (path) => (path.match(/\{/g) ?? []).length <= 1 && path.replace('{id}', '').search(/[{}]/) < 0,
    'A path has {id} once.',
  ),
);

const OriginSchema = v.pipe(
  v.string(),
  v.check((text) => {
    const read = readWebAddress(text);
    return read.kind === 'address' && !read.wasHttp && read.url.origin === text;
  }, 'An origin is written as https://films.example, without a path.'),
);

const line = (most: number) => v.pipe(v.string(), v.trim(), v.minLength(1), v.maxLength(most));

/** What is known of one host: an open entry, which can be edited, exported and imported as JSON. */
const HostEntrySchema = v.strictObject({
  id: v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,40}$/, 'An id has small letters, digits and hyphens.')),
  name: line(60),
  kind: v.picklist(EMBED_KINDS),
  /** Where its frames and pages stand. */
  origin: OriginSchema,
  /** Under which names its addresses are known; those of `origin` go without saying. */
  hosts: v.pipe(v.array(HostNameSchema), v.maxLength(20)),
  /** Each way its addresses look, with what is framed and what a reader can open; null where there is no frame of it. */
  addresses: v.pipe(
    v.array(
      v.strictObject({
        match: v.pipe(v.array(PathSchema), v.minLength(1), v.maxLength(10)),
        frame: v.nullable(PathSchema),
        page: PathSchema,
        /** Where these are of another kind than the host's other things. */
        kind: v.optional(v.picklist(EMBED_KINDS)),
      }),
    ),
    v.minLength(1),
    v.maxLength(20),
  ),
  /** Where it answers by oEmbed 1.0, or null. */
  oembed: v.nullable(SafeAddressSchema),
  /** The address of its search, which gets the words as `q`; null where it has none that is known. */
  search: v.optional(v.nullable(SafeAddressSchema), null),
  /** Where it takes films of the house, or null. */
  upload: v.optional(v.nullable(SafeAddressSchema), null),
  parameters: v.pipe(v.array(ParameterSchema), v.maxLength(30)),
  /** Parameters that only tell the host who shared the address. */
  tracking: v.pipe(v.array(v.pipe(v.string(), v.regex(/^[A-Za-z0-9_.~*-]{1,40}$/))), v.maxLength(50)),
  allow: v.pipe(v.array(v.picklist(PERMISSIONS)), v.maxLength(30)),
  sandbox: v.pipe(v.array(v.picklist(SANDBOX_TOKENS)), v.maxLength(10)),
  shape: EmbedShapeSchema,
  /** The name under which its frames tell their height by `postMessage({ NAME: px })`, or null. */
  heightMessage: v.nullable(v.pipe(v.string(), v.regex(/^[A-Za-z0-9_.-]{1,40}$/))),
  /** Its script widget: the script, and the attribute in which the name or address of the thing stands. */
  widget: v.nullable(
    v.strictObject({
      script: PathSchema,
      attribute: v.pipe(v.string(), v.regex(/^(data-[a-z0-9-]{1,40}|cite|href)$/)),
      /** The class of the element that the script fills. */
      className: v.pipe(v.string(), v.regex(/^[a-z0-9_-]{1,60}$/i)),
    }),
  ),
  /** What to ask for at the host, in a sentence, when something else was taken. */
  ask: line(300),
});
export type HostEntry = v.InferOutput<typeof HostEntrySchema>;
export const HostEntriesSchema = v.pipe(v.array(HostEntrySchema), v.maxLength(500));

/** A recorded decision of the site owner to let one address, or a whole host, be framed. */
export const HostDecisionSchema = v.strictObject({
  scope: v.picklist(['address', 'host']),
  /** An address without query and fragment, or a host name with its port. */
  value: v.pipe(v.string(), v.minLength(1), v.maxLength(2000)),
  reason: line(300),
  by: v.pipe(v.string(), v.maxLength(100)),
  at: v.pipe(v.string(), v.isoTimestamp()),
});
export type HostDecision = v.InferOutput<typeof HostDecisionSchema>;

/** All hosts that are trusted: by entry, or by decision. */
export interface Hosts {
  readonly entries: readonly HostEntry[];
  readonly decisions: readonly HostDecision[];
}

/** Whether a host, with its port, is the one named: exactly, or by a listed end (`*.films.example`). */
export function isHost(pattern: string, host: string): boolean {
  return pattern.startsWith('*.')
    ? host.endsWith(pattern.slice(1)) && host.length > pattern.length - 1
    : host === pattern;
}

export function entryOf(url: URL, { entries }: Pick<Hosts, 'entries'>): HostEntry | undefined {
  return entries.find(
    (entry) =>
      new URL(entry.origin).host === url.host || entry.hosts.some((pattern) => isHost(pattern, url.host)),
  );
}

export function entryById(id: string | null, { entries }: Pick<Hosts, 'entries'>): HostEntry | undefined {
  return id === null ? undefined : entries.find((entry) => entry.id === id);
}

/** By what an address may be framed; `none` means that it can only be linked. */
export type Trust = 'entry' | 'decision' | 'none';

export function trustOf(address: string, hosts: Hosts): Trust {
  const read = readWebAddress(address);
  if (read.kind === 'fault') return 'none';
  if (entryOf(read.url, hosts)) return 'entry';
  return hosts.decisions.some((decision) => isDecided(decision, read.url)) ? 'decision' : 'none';
}

function isDecided({ scope, value }: HostDecision, url: URL): boolean {
  return scope === 'host' ? value === url.host : value === withoutQuery(url);
}

export function withoutQuery(url: URL): string {
  return `${url.origin}${url.pathname}`;
}

/** A thing that an entry knows by its address: what is framed, and what a reader can open. */
export interface KnownThing {
  readonly kind: EmbedKind;
  readonly frame: string | null;
  readonly page: string;
}

/** What stands at an address of a host, by its entry; undefined for an address of that host that names no thing. */
export function thingAt(entry: HostEntry, url: URL): KnownThing | undefined {
  for (const { match, frame, page, kind } of entry.addresses) {
    for (const path of match) {
      const id = idIn(path, url.pathname);
      if (id === undefined) continue;
      return {
        kind: kind ?? entry.kind,
        frame: frame === null ? null : entry.origin + frame.replace('{id}', id),
        page: entry.origin + page.replace('{id}', id),
      };
    }
  }
  return undefined;
}

/** What stands for `{id}` in a path: letters, digits, hyphens, underscores. The empty text where there is none. */
function idIn(pattern: string, path: string): string | undefined {
  const bare = path.length > 1 ? path.replace(/\/$/, '') : path;
  if (!pattern.includes('{id}')) return bare === pattern ? '' : undefined;
  const [before = '', after = ''] = pattern.split('{id}');
  if (!bare.startsWith(before) || !bare.endsWith(after)) return undefined;
  const id = bare.slice(before.length, bare.length - after.length);
  return /^[A-Za-z0-9_-]{1,100}$/.test(id) ? id : undefined;
}

/** Entries read from text that somebody imports; what does not fit is said with its place, and nothing is taken. */
export function readHostEntries(
  text: string,
):
  | { readonly kind: 'entries'; readonly entries: readonly HostEntry[] }
  | { readonly kind: 'fault'; readonly sentence: string } {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    return { kind: 'fault', sentence: 'This file is not JSON. Nothing was taken from it.' };
  }
  const read = v.safeParse(HostEntriesSchema, Array.isArray(data) ? data : [data]);
  if (read.success) return { kind: 'entries', entries: read.output };
  const [issue] = read.issues;
  return {
    kind: 'fault',
    sentence: `This file does not describe hosts: at ${v.getDotPath(issue) ?? 'its start'}, ${issue.message} Nothing was taken from it.`,
  };
}
