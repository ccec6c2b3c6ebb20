import { decodeHTML } from 'entities/decode';
import { oneLine } from '../words/one-line.ts';
import { meantAddress, readWebAddress, sayAddressFault } from './address.ts';
import { gatherCandidates } from './candidates.ts';
import type { Candidate, Mark, ReadFrom } from './gathered.ts';
import {
  type EmbedKind,
  type EmbedShape,
  entryOf,
  type HostEntry,
  type Hosts,
  type Trust,
  thingAt,
  trustOf,
} from './host.ts';
import { HEIGHT_LIMITS, MOST_PASTED } from './limits.ts';
import { markAddress, markPermissions, marksOfPasted } from './marks.ts';
import { attributeOf, type Stretch } from './markup.ts';
import { type Carrier, type Embed, identityOf, NO_FACTS } from './model.ts';
import { type AskedPermission, askedPermissions, isPermission, type Permission } from './permissions.ts';
import { type Query, readQuery, type UnknownParameter } from './query.ts';
import { sharedParameter } from './shared-parameters.ts';

/** One thing that was read, with what it asked for and does not get. */
export interface ReadEmbed {
  readonly from: ReadFrom;
  readonly embed: Embed;
  readonly trust: Trust;
  /** Asked for in the pasted code and not given, since the thing does not need it. */
  readonly notGiven: readonly Permission[];
  readonly unknown: readonly UnknownParameter[];
  /** Told of the address: parts that only say who shared it. */
  readonly tracking: readonly string[];
  /** What has to be known before it is placed, each a sentence. */
  readonly notes: readonly string[];
}

export interface EmbedReading {
  readonly embeds: readonly ReadEmbed[];
  /** Parts of the pasted text, in order: kept as a fact, or left behind. */
  readonly marks: readonly Mark[];
  /** What could not be taken, each a sentence with what to do. */
  readonly refusals: readonly string[];
}

/**
 * Reads what was pasted into typed embeds: addresses, frames, players, widgets, quotes, links, oEmbed answers, in any
 * condition. Nothing of the text itself is kept but what the model names. Linear in the length. Never throws.
 */
export function readPasted(pasted: string, hosts: Hosts): EmbedReading {
  if (pasted.length > MOST_PASTED)
    return {
      embeds: [],
      marks: [],
      refusals: [
        `This is ${Math.round(pasted.length / 1000)} kB of text, and at most ${MOST_PASTED / 1000} kB are read. Nothing was taken. Copy only the part that its host offers as embed code.`,
      ],
    };
  const { source, candidates, marks, notes } = gatherCandidates(pasted, hosts);
  const embeds: ReadEmbed[] = [];
  const all: Mark[] = [...marks];
  const refusals = [...notes];
  for (const candidate of candidates) {
    const read = readCandidate(candidate, hosts);
    for (const mark of read.marks) all.push(mark);
    if (read.kind === 'refused') refusals.push(read.sentence);
    else embeds.push(read.embed);
  }
  return {
    embeds: unlike(embeds),
    marks: marksOfPasted(source, all),
    refusals: [...new Set(embeds.length > 0 ? refusals.filter((note) => !isAboutNothing(note)) : refusals)],
  };
}

const isAboutNothing = (note: string) =>
  note.startsWith('No address and no embed code') || note.startsWith('This is only a program');

/** A thing read twice, as from a player with several files or a link under a frame, is one thing. */
function unlike(embeds: readonly ReadEmbed[]): readonly ReadEmbed[] {
  const seen = new Set<string>();
  return embeds.filter(({ embed }) => !seen.has(identityOf(embed)) && seen.add(identityOf(embed)));
}

type CandidateReading = { readonly marks: readonly Mark[] } & (
  | { readonly kind: 'read'; readonly embed: ReadEmbed }
  | { readonly kind: 'refused'; readonly sentence: string }
);

function readCandidate(candidate: Candidate, hosts: Hosts): CandidateReading {
  const read = readWebAddress(meantAddress(candidate.address));
  if (read.kind === 'fault') {
    const { addressText } = candidate;
    return {
      kind: 'refused',
      sentence: sayAddressFault(read.fault),
      marks: addressText
        ? [{ ...stretchOf(addressText), as: 'dropped', why: sayAddressFault(read.fault) }]
        : [],
    };
  }
  const entry = entryOf(read.url, hosts);
  const isShown = isFramed(candidate) || candidate.from === 'link';
  if (!entry && isShown && fileKindOf(read.url) === 'picture')
    return { kind: 'refused', sentence: IS_PICTURE, marks: [] };
  const query = readQuery(read.url, entry);
  const asked = askedBy(candidate);
  const embed = embedOf(candidate, read.url, entry, query);
  const given = new Set<string>([...(entry?.allow ?? []), ...embed.allowed]);
  const trust = trustOf(embed.address, hosts);
  return {
    kind: 'read',
    embed: {
      from: candidate.from,
      embed,
      trust,
      notGiven: [...new Set(asked.map(({ name }) => name))]
        .filter(isPermission)
        .filter((name) => !given.has(name)),
      unknown: query.unknown,
      tracking: query.tracking,
      notes: notesOf(candidate, read.url, entry),
    },
    marks: [
      ...markAddress(candidate, read.wasHttp, query, embed.carrier === 'link'),
      ...markPermissions(candidate, asked, given),
    ],
  };
}

/** A title that was escaped once more on its way here is read once more; it is escaped again when it is written. */
function readAgain(text: string): string {
  return /&(?:amp|quot|apos|lt|gt|nbsp|#\d{1,5}|#x[0-9a-f]{1,5});/i.test(text) ? decodeHTML(text) : text;
}

const stretchOf = ({ from, to }: Stretch) => ({ from, to });

function embedOf(candidate: Candidate, url: URL, entry: HostEntry | undefined, query: Query): Embed {
  const thing = entry ? thingAt(entry, url) : undefined;
  const title = oneLine(readAgain(candidate.title));
  const { oembed } = candidate;
  const standing =
    entry?.parameters.flatMap(({ name, standard }) =>
      standard === null ? [] : [[name, standard] as const],
    ) ?? [];
  const page = thing?.page ?? linkAddress(url, query.tracking);
  const carrier = carrierOf(candidate, entry, thing?.frame ?? null, fileKindOf(url));
  const isFile = carrier === 'video' || carrier === 'audio';
  const kind = thing?.kind ?? kindOf(candidate, entry, carrier, query);
  return {
    kind,
    carrier,
    host: entry?.id ?? null,
    address: thing?.frame ?? (carrier === 'link' ? page : (thing?.page ?? bareAddress(url, query.place))),
    page,
    parameters: {
      ...Object.fromEntries(standing),
      ...(isFile ? startOfFile(query.parameters) : carrier === 'link' && !entry ? {} : query.parameters),
    },
    kept: { ...query.kept },
    title,
    caption: oneLine(readAgain(candidate.caption), 600),
    shape: carrier === 'audio' ? AUDIO_SHAPE : shapeOf(candidate, entry, kind),
    loadOnClick: thing?.kind === 'film' && thing.frame !== null,
    // A host that nobody described gets the one thing that needs a reader’s own click.
    allowed: !entry && carrier === 'frame' && asksForScreen(candidate) ? ['fullscreen'] : [],
    facts: oembed
      ? {
          ...NO_FACTS,
          title: oembed.title,
          author: oembed.author,
          thumbnail: safeOrNone(oembed.thumbnail),
          seconds: oembed.seconds,
        }
      : NO_FACTS,
  };
}

/** The address without its query, and with what of its fragment belongs to it: what is kept of the rest is kept by name. */
function bareAddress(url: URL, place: string): string {
  const bare = new URL(url.href);
  bare.search = '';
  bare.hash = place;
  return bare.href;
}

/** A file knows no start in its query; a browser knows one in its fragment (Media Fragments URI 1.0). */
function startOfFile(parameters: Query['parameters']): Query['parameters'] {
  const start = Object.keys(parameters).find(
    (name) => name !== '#t' && sharedParameter(name, parameters[name] ?? '')?.parameter.role === 'start',
  );
  if (start === undefined) return parameters;
  const { [start]: seconds = '', ...others } = parameters;
  return { '#t': seconds, ...others };
}

/**
 * The address that a reader follows: with its query, which often says what it is (`watch?v=...`), and the place in it, without
 * what only tells who shared it. Nothing is done with it but to open it.
 */
function linkAddress(url: URL, tracking: readonly string[]): string {
  const link = new URL(url.href);
  if (tracking.length > 0)
    link.search = link.search
      .slice(1)
      .split('&')
      .filter((part) => !tracking.includes([...new URLSearchParams(part).keys()][0] ?? ''))
      .join('&');
  return link.href;
}

export function safeOrNone(address: string): string {
  const read = readWebAddress(address);
  return read.kind === 'address' ? read.url.href : '';
}

const IS_PICTURE =
  'This is the address of a picture. Fetch it under Gather, so that its licence and maker come along.';

/** What a file is by the end of its name (IANA media types in wide use), where that says so. */
const FILE_KINDS: readonly (readonly [RegExp, 'picture' | 'video' | 'audio'])[] = [
  [/\.(?:jpe?g|png|gif|webp|avif|svg|tiff?|heic|bmp)$/i, 'picture'],
  [/\.(?:mp4|m4v|webm|ogv|mov)$/i, 'video'],
  [/\.(?:mp3|m4a|aac|ogg|oga|opus|wav|flac)$/i, 'audio'],
];

function fileKindOf({ pathname }: URL): 'picture' | 'video' | 'audio' | null {
  return FILE_KINDS.find(([ending]) => ending.test(pathname))?.[1] ?? null;
}

/** Whether it comes to stand in a frame where nothing else is known of it. */
const isFramed = ({ from }: Candidate) =>
  from === 'frame' || from === 'object' || from === 'address' || from === 'oembed' || from === 'data';

/** What it is; at a host that nobody described, by what is asked of it: a place makes a map, a start makes a film. */
function kindOf(
  { from, tag, oembed }: Candidate,
  entry: HostEntry | undefined,
  carrier: Carrier,
  query: Query,
): EmbedKind {
  if (entry) return entry.kind;
  if (from === 'player') return tag?.name.includes('audio') ? 'sound' : 'film';
  if (carrier === 'video') return 'film';
  if (carrier === 'audio') return 'sound';
  if (carrier === 'link') return 'page';
  if (oembed?.type === 'video') return 'film';
  const shared = Object.entries(query.parameters).flatMap(
    ([name, value]) => sharedParameter(name, value) ?? [],
  );
  if (query.place.length > 0 && !/^#[/!]/.test(query.place)) return 'map';
  if (shared.some(({ says }) => says === 'where')) return 'map';
  const isPlayed = shared.some(
    ({ parameter: { role } }) => role === 'start' || role === 'captions' || role === 'autoplay',
  );
  return isPlayed ? 'film' : 'page';
}

function carrierOf(
  candidate: Candidate,
  entry: HostEntry | undefined,
  frame: string | null,
  file: ReturnType<typeof fileKindOf>,
): Carrier {
  const { from, tag, oembed } = candidate;
  if (from === 'player') return tag?.name.includes('audio') ? 'audio' : 'video';
  if (frame !== null) return 'frame';
  // What its host gave out as a frame is one, whatever its entry knows of scripts.
  if (entry && (from === 'frame' || from === 'object')) return 'frame';
  if (entry?.widget) return 'widget';
  if (entry) return 'link';
  if (!isFramed(candidate) || oembed?.type === 'link') return 'link';
  return file === 'video' || file === 'audio' ? file : 'frame';
}

/** As high as Chromium draws its own controls of a recording. */
const AUDIO_SHAPE: EmbedShape = { kind: 'height', px: 54 };

/** The shape that the code says; in its absence that of the host's things. Absurd ones are not believed. */
function shapeOf(
  { width, height, heightPercent }: Candidate,
  entry: HostEntry | undefined,
  kind: EmbedKind,
): EmbedShape {
  if (entry?.shape.kind === 'height' && height !== null)
    return { kind: 'height', px: Math.max(HEIGHT_LIMITS.least, Math.min(HEIGHT_LIMITS.most, height)) };
  if (width !== null && height !== null && isLikely(width / height)) return ratio(width, height);
  if (heightPercent !== null && isLikely(100 / heightPercent))
    return ratio(10_000, Math.round(heightPercent * 100));
  if (height !== null && height >= HEIGHT_LIMITS.least)
    return { kind: 'height', px: Math.min(HEIGHT_LIMITS.most, height) };
  if (entry) return entry.shape;
  return kind === 'film' ? { kind: 'ratio', across: 16, down: 9 } : { kind: 'height', px: 480 };
}

const isLikely = (aspect: number) => aspect > 0.2 && aspect < 5;

/** A ratio in its smallest terms; those a hair from a usual one are taken for it. */
function ratio(width: number, height: number): EmbedShape {
  const usual = [
    [16, 9],
    [4, 3],
    [1, 1],
    [9, 16],
    [21, 9],
    [3, 2],
    [3, 4],
  ].find(([across = 1, down = 1]) => Math.abs(width / height - across / down) < 0.004 * (across / down));
  if (usual) return { kind: 'ratio', across: usual[0] ?? 1, down: usual[1] ?? 1 };
  const by = commonDivisor(width, height);
  return { kind: 'ratio', across: Math.min(10_000, width / by), down: Math.min(10_000, height / by) };
}

function commonDivisor(a: number, b: number): number {
  return b === 0 ? a : commonDivisor(b, a % b);
}

const asksForScreen = (candidate: Candidate) => askedBy(candidate).some(({ name }) => name === 'fullscreen');

function askedBy({ tag }: Candidate): readonly AskedPermission[] {
  if (!tag) return [];
  const allow = attributeOf(tag, 'allow');
  const asked = allow ? [...askedPermissions(allow.value)] : [];
  // Prefixes of browsers' own names are from before the attribute was one for all.
  const fullscreen = tag.attributes.find(({ name }) => /^(webkit|moz)?allowfullscreen$/.test(name));
  if (fullscreen && fullscreen.value.trim().toLowerCase() !== 'false')
    asked.push({ name: 'fullscreen', from: -1, to: -1 });
  return asked;
}

function notesOf({ from, tag }: Candidate, url: URL, entry: HostEntry | undefined): readonly string[] {
  const notes: string[] = [];
  if (entry && !thingAt(entry, url))
    notes.push(`This address of ${entry.name} names no ${entry.kind} of it. ${entry.ask}`);
  if (from === 'widget' && entry && thingAt(entry, url)?.frame)
    notes.push(
      `This was the script variant of ${entry.name}’s code. The same thing comes in a frame, without the script.`,
    );
  if (from === 'object')
    notes.push('Plug-in code is no longer shown by browsers. What it names comes in a frame.');
  if (from === 'applet')
    notes.push(
      'Programs of this kind are no longer run by browsers. What is left of it is a link to where it was.',
    );
  if (tag?.name === 'frame')
    notes.push('Framesets are no longer shown by browsers. What it names comes in a frame.');
  return notes;
}
