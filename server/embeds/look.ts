import type { Look } from '#api/embeds.ts';
import type { Target } from '#api/targets.ts';
import { type Framing, framingOf } from '#core/embed/framing.ts';
import { entryById, type Hosts } from '#core/embed/host.ts';
import type { Embed, Visibility } from '#core/embed/model.ts';
import type { PageFacts } from '#core/embed/page-facts.ts';
import { safeOrNone } from '#core/embed/reading.ts';
import { frameAddress } from '#core/embed/write.ts';
import type { Oembed } from '#core/formats/oembed.ts';
import type { Context } from '../context.ts';
import { ForeignProblem } from '../foreign/problem.ts';
import { textOf } from '../gather/page-text.ts';
import { farAddress } from '../gather/preview.ts';
import type { Probed } from '../outbound/outbound.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { registeredEndpoint } from './registry.ts';

const PAGE_LIMITS = { bytes: 600_000, millis: 8000 };
const OEMBED_LIMITS = { bytes: 200_000, millis: 8000 };
/** Enough to hear its headers. */
const FRAME_LIMITS = { bytes: 2000, millis: 8000 };

interface Asked {
  readonly embed: Embed;
  readonly hosts: Hosts;
  readonly targets: readonly Target[];
}

/**
 * Asks the other site of a thing: its page, its oEmbed answer, and whether it lets itself be framed by each target.
 * Whatever goes wrong out there is said in a sentence; it never throws for it.
 */
export async function lookAt(context: Context, asked: Asked, signal: AbortSignal): Promise<Look> {
  const notes: string[] = [];
  const { embed, hosts } = asked;
  const entry = entryById(embed.host, hosts);
  const probe = (address: string, limits: typeof PAGE_LIMITS, accept: string) =>
    context.outbound.probe(address, { limits, accept, signal }).catch((error: unknown) => {
      if (!(error instanceof OutboundProblem)) throw error;
      notes.push(error.message);
      return null;
    });
  const isFramed = embed.carrier === 'frame';
  const endpoint = entry ? entry.oembed : registeredEndpoint(embed.page);
  const [page, frame, known] = await Promise.all([
    probe(embed.page, PAGE_LIMITS, 'text/html'),
    isFramed ? probe(frameAddress(embed, hosts), FRAME_LIMITS, 'text/html') : null,
    endpoint ? askOembed(context, probe, oembedAddress(endpoint, embed.page), notes) : null,
  ]);
  const facts = page?.status === 200 ? await factsOf(context, page, notes, signal) : null;
  const oembed = known ?? (facts?.oembed ? await askOembed(context, probe, facts.oembed, notes) : null);
  const told = withFacts(embed, page, facts, oembed);
  const offered = entry ? null : await offeredFrame(context, told, oembed, hosts);
  if (offered) return lookAt(context, { ...asked, embed: offered }, signal);
  return {
    embed: told,
    poster: told.facts.thumbnail
      ? farAddress(context, { address: told.facts.thumbnail, page: embed.page })
      : null,
    framing: frame
      ? asked.targets.map(({ id, rules }) => ({ target: id, framing: framingFor(frame, rules.siteAddress) }))
      : [],
    notes: [...new Set(notes)],
  };
}

const TOO_LONG = 'It takes too long to be read.';

/** What was read, or null where it was given up: a page that is made to be slow is no fault of whoever asks. */
async function orNothing<T>(reading: Promise<T>): Promise<T | null> {
  return reading.catch((error: unknown) => {
    if (error instanceof ForeignProblem && error.fault !== 'stopped') return null;
    throw error;
  });
}

async function factsOf(
  context: Context,
  page: Probed,
  notes: string[],
  signal: AbortSignal,
): Promise<PageFacts | null> {
  const html = textOf(page.bytes, page.headers['content-type']);
  const facts = await orNothing(context.texts.pageFacts({ html, base: page.address }, signal));
  if (!facts) notes.push(`The page of ${new URL(page.address).host} is not understood. ${TOO_LONG}`);
  return facts;
}

/** A target without an address of its own is asked for as a page of an origin that nobody names. */
const NOWHERE = 'https://no-origin.invalid';

function framingFor(frame: Probed, siteAddress: string): Framing {
  const parent = URL.canParse(siteAddress) ? new URL(siteAddress).origin : NOWHERE;
  return framingOf(
    {
      address: frame.address,
      status: frame.status,
      frameOptions: frame.every('x-frame-options'),
      policies: frame.every('content-security-policy'),
    },
    parent,
  );
}

/**
 * The frame that an unknown host offers by oEmbed in the place of its page, where both stand at that host. It is asked
 * for as such, and framed only where somebody has decided so.
 */
async function offeredFrame(
  context: Context,
  embed: Embed,
  oembed: Oembed | null,
  hosts: Hosts,
): Promise<Embed | null> {
  const read = oembed?.html ? await orNothing(context.texts.pasted(oembed.html, hosts)) : null;
  const [offered] = read?.embeds ?? [];
  if (offered?.embed.carrier !== 'frame' || offered.from !== 'frame') return null;
  const { address, shape } = offered.embed;
  if (address === embed.address || new URL(address).host !== new URL(embed.page).host) return null;
  return { ...embed, address, shape, carrier: 'frame', kind: oembed?.type === 'video' ? 'film' : embed.kind };
}

type Probe = (address: string, limits: typeof PAGE_LIMITS, accept: string) => Promise<Probed | null>;

function oembedAddress(endpoint: string, page: string): string {
  const address = new URL(endpoint);
  address.searchParams.set('url', page);
  address.searchParams.set('format', 'json');
  return address.href;
}

/** oEmbed 1.0, 2.3: what is private answers 401, what is not there 404, a format that is not spoken 501. */
async function askOembed(
  context: Context,
  probe: Probe,
  address: string,
  notes: string[],
): Promise<Oembed | null> {
  const answer = await probe(address, OEMBED_LIMITS, 'application/json, text/xml');
  if (answer?.status !== 200) return null;
  const read = await orNothing(context.texts.oembed(textOf(answer.bytes, answer.headers['content-type'])));
  if (read?.kind === 'answer') return read.answer;
  notes.push(
    `${new URL(answer.address).host} was asked what it is, and what it answered was not understood. ${read?.sentence ?? TOO_LONG}`,
  );
  return null;
}

function withFacts(embed: Embed, page: Probed | null, facts: PageFacts | null, oembed: Oembed | null): Embed {
  const before = embed.facts;
  return {
    ...embed,
    facts: {
      title: facts?.title || oembed?.title || before.title,
      author: facts?.author || oembed?.author || before.author,
      thumbnail: safeOrNone(oembed?.thumbnail ?? '') || facts?.thumbnail || before.thumbnail,
      seconds: facts?.seconds ?? oembed?.seconds ?? before.seconds,
      captions: [...(facts?.captions ?? before.captions)],
      visibility: visibilityOf(page, facts) ?? before.visibility,
    },
  };
}

function visibilityOf(page: Probed | null, facts: PageFacts | null): Visibility | null {
  if (page === null) return null;
  if (page.status === 401 || page.status === 403) return 'private';
  if (facts === null) return null;
  return facts.isUnlisted ? 'by-link' : 'public';
}
