import { readWebAddress, sayAddressFault } from './address.ts';
import { type Candidate, gatherCandidates, type Mark, marksOfPasted, type ReadFrom } from './candidate.ts';
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
import { attributeOf, type Stretch } from './markup.ts';
import { type Carrier, type Embed, NO_FACTS } from './model.ts';
import { readValue } from './parameters.ts';
import { type AskedPermission, askedPermissions, isPermission, type Permission } from './permissions.ts';

/** A parameter that stood in the address and that no entry knows. */
export interface UnknownParameter {
  readonly name: string;
  readonly value: string;
}

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

/** Most letters that are read from one paste. */
export const MOST_PASTED = 1_000_000;

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
    all.push(...read.marks);
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
  return embeds.filter(({ embed }) => !seen.has(embed.address) && seen.add(embed.address));
}

type CandidateReading = { readonly marks: readonly Mark[] } & (
  | { readonly kind: 'read'; readonly embed: ReadEmbed }
  | { readonly kind: 'refused'; readonly sentence: string }
);

function readCandidate(candidate: Candidate, hosts: Hosts): CandidateReading {
  const read = readWebAddress(candidate.address);
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
  const query = readQuery(read.url, entry);
  const asked = askedBy(candidate);
  const embed = embedOf(candidate, read.url, entry, query);
  const given = new Set<string>(entry?.allow ?? []);
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
    marks: [...markAddress(candidate, read.wasHttp, query), ...markPermissions(candidate, asked, given)],
  };
}

const stretchOf = ({ from, to }: Stretch) => ({ from, to });

interface Query {
  readonly parameters: Readonly<Record<string, string>>;
  readonly unknown: readonly UnknownParameter[];
  readonly tracking: readonly string[];
}

const MOST_PARAMETERS = 60;

/** The parameters of an address: those the entry knows, in the form that it writes; those that track; the others. */
function readQuery(url: URL, entry: HostEntry | undefined): Query {
  const parameters: Record<string, string> = {};
  const unknown: UnknownParameter[] = [];
  const tracking: string[] = [];
  for (const [name, value] of [...url.searchParams].slice(0, MOST_PARAMETERS)) {
    const known = entry?.parameters.find((parameter) => parameter.name === name);
    const read = known ? readValue(known, value) : undefined;
    if (known && read !== undefined) parameters[name] = read;
    else if (isTracking(name, entry)) tracking.push(name);
    else if (!known && name.length <= 60 && value.length <= 300) unknown.push({ name, value });
  }
  return { parameters, unknown, tracking };
}

/** Names that tell who shared an address, whatever the host: campaign names and click numbers. */
const TRACKING = /^(utm_[a-z]{1,20}|[a-z]{0,3}clid|ref|ref_src|source_ve_path)$/i;

function isTracking(name: string, entry: HostEntry | undefined): boolean {
  return (
    TRACKING.test(name) ||
    (entry?.tracking ?? []).some((one) =>
      one.endsWith('*') ? name.startsWith(one.slice(0, -1)) : one === name,
    )
  );
}

function embedOf(candidate: Candidate, url: URL, entry: HostEntry | undefined, query: Query): Embed {
  const thing = entry ? thingAt(entry, url) : undefined;
  const title = candidate.title.slice(0, 300);
  const { oembed } = candidate;
  const standing =
    entry?.parameters.flatMap(({ name, standard }) =>
      standard === null ? [] : [[name, standard] as const],
    ) ?? [];
  const bare = bareAddress(url);
  return {
    kind: thing?.kind ?? kindOf(candidate, entry),
    carrier: carrierOf(candidate, entry, thing?.frame ?? null),
    host: entry?.id ?? null,
    address: thing?.frame ?? thing?.page ?? bare,
    page: thing?.page ?? bare,
    parameters: { ...Object.fromEntries(standing), ...query.parameters },
    kept: {},
    title,
    shape: shapeOf(candidate, entry),
    onClick: thing?.kind === 'film' && thing.frame !== null,
    allowed: [],
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

/** The address without query and fragment: what of them is kept is kept by name. */
function bareAddress(url: URL): string {
  const bare = new URL(url.href);
  bare.search = '';
  bare.hash = '';
  return bare.href;
}

export function safeOrNone(address: string): string {
  const read = readWebAddress(address);
  return read.kind === 'address' ? read.url.href : '';
}

function kindOf({ from, tag }: Candidate, entry: HostEntry | undefined): EmbedKind {
  if (entry) return entry.kind;
  if (from === 'player') return tag?.name === 'audio' ? 'sound' : 'film';
  return 'page';
}

function carrierOf({ from, tag }: Candidate, entry: HostEntry | undefined, frame: string | null): Carrier {
  if (from === 'player') return tag?.name === 'audio' ? 'audio' : 'video';
  if (frame !== null) return 'frame';
  if (entry?.widget) return 'widget';
  if (entry) return 'link';
  return from === 'frame' || from === 'object' || from === 'address' || from === 'oembed' ? 'frame' : 'link';
}

/** The shape that the code says; in its absence that of the host's things. Absurd ones are not believed. */
function shapeOf(
  { width, height, heightPercent, from }: Candidate,
  entry: HostEntry | undefined,
): EmbedShape {
  if (entry?.shape.kind === 'height' && height !== null)
    return { kind: 'height', px: Math.max(40, Math.min(4000, height)) };
  if (width !== null && height !== null && isLikely(width / height)) return ratio(width, height);
  if (heightPercent !== null && isLikely(100 / heightPercent))
    return ratio(10_000, Math.round(heightPercent * 100));
  if (height !== null && height >= 40) return { kind: 'height', px: Math.min(4000, height) };
  if (entry) return entry.shape;
  return from === 'player' ? { kind: 'ratio', across: 16, down: 9 } : { kind: 'height', px: 480 };
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

function askedBy({ tag }: Candidate): readonly AskedPermission[] {
  if (!tag) return [];
  const allow = attributeOf(tag, 'allow');
  const asked = allow ? [...askedPermissions(allow.value)] : [];
  const fullscreen = attributeOf(tag, 'allowfullscreen');
  if (fullscreen) asked.push({ name: 'fullscreen', from: -1, to: -1 });
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
  if (tag?.name === 'frame')
    notes.push('Framesets are no longer shown by browsers. What it names comes in a frame.');
  return notes;
}

function markAddress(candidate: Candidate, wasHttp: boolean, query: Query): readonly Mark[] {
  const { addressText } = candidate;
  if (!addressText) return [];
  const { raw, from, to } = addressText;
  const start = /^\s*/.exec(raw)?.[0].length ?? 0;
  const marks: Mark[] = [];
  let at = start;
  const mark = (end: number, as: Mark['as'], why: string) => {
    if (end > at) marks.push({ from: from + at, to: from + end, as, why });
    at = end;
  };
  if (wasHttp && /^http:/i.test(raw.slice(at)))
    mark(at + 5, 'dropped', 'Written as https, so that nobody on the way can read or change it.');
  const question = raw.indexOf('?', at);
  const fragment = raw.indexOf('#', at);
  const pathEnd = Math.min(...[question, fragment, raw.length].filter((place) => place >= 0));
  mark(pathEnd, 'fact', 'Where it stands.');
  const queryEnd = fragment >= 0 && fragment > question ? fragment : raw.length;
  if (question >= 0 && question === pathEnd)
    markQuery(raw, question + 1, queryEnd, query, (stretchFrom, end, as, why) => {
      at = stretchFrom;
      mark(end, as, why);
    });
  at = Math.max(at, queryEnd);
  if (fragment >= 0) mark(raw.length, 'dropped', 'A place within the other page does not come along.');
  return marks.filter((one) => one.to <= to);
}

type MarkPart = (from: number, to: number, as: Mark['as'], why: string) => void;

function markQuery(raw: string, from: number, to: number, query: Query, mark: MarkPart): void {
  let at = from;
  for (const part of raw.slice(from, to).split(/&amp;|&#38;|&/)) {
    const name = nameOf(part);
    if (name in query.parameters) mark(at, at + part.length, 'fact', 'Kept as a setting.');
    else if (query.tracking.includes(name))
      mark(at, at + part.length, 'dropped', 'It only tells who shared the address.');
    else if (part !== '')
      mark(
        at,
        at + part.length,
        'dropped',
        'It is not known what this does. It comes along when it is ticked.',
      );
    at += part.length;
    const parting = /^(&amp;|&#38;|&)/.exec(raw.slice(at, at + 5));
    at += parting?.[0].length ?? 0;
  }
}

function nameOf(part: string): string {
  const name = part.split('=')[0] ?? '';
  try {
    return decodeURIComponent(name.replaceAll('+', ' '));
  } catch {
    return name;
  }
}

function markPermissions(
  { tag }: Candidate,
  asked: readonly AskedPermission[],
  given: ReadonlySet<string>,
): readonly Mark[] {
  const allow = tag ? attributeOf(tag, 'allow') : undefined;
  if (!allow) return [];
  const { from } = allow.valueAt;
  return asked
    .filter((one) => one.from >= 0)
    .map((one) => ({
      from: from + one.from,
      to: from + one.to,
      as: given.has(one.name) ? ('fact' as const) : ('dropped' as const),
      why: given.has(one.name) ? 'It needs this.' : 'It asks for this and does not need it.',
    }));
}
