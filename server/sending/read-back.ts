import { eq } from 'drizzle-orm';
import { type Difference, isLost } from '#core/deliver/compare.ts';
import type { StandingFilm, StandingPicture } from '#core/deliver/compared.ts';
import type { LinkFact, PictureFact } from '#core/deliver/facts.ts';
import { sayCompared } from '#core/deliver/say.ts';
import { escapeHtml } from '#core/page/escape.ts';
import type { HouseRules } from '#core/page/target.ts';
import { isWebAddress } from '#core/rights/web-address.ts';
import { eachAtMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import { deliveries } from '../db/schema.ts';
import { ForeignProblem } from '../foreign/problem.ts';
import { textOf } from '../gather/page-text.ts';
import { linkState } from '../outbound/link-state.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { retry } from '../outbound/retry.ts';
import { notFound } from '../problem.ts';
import { readTarget } from '../rules/store.ts';

/** A page of a site with all that stands round it; more is no page. */
const PAGE_LIMITS = { bytes: 3_000_000, millis: 20_000 };
/** The head of a picture says what it is and how large; a label may stand before that. */
const PICTURE_LIMITS = { bytes: 65_536, millis: 15_000 };
/** A site may take a moment until what it took is there for all. */
const PATIENCE = { tries: 3, firstWaitMillis: 500, longestWaitMillis: 5000 };
const MOST_PICTURES = 200;
const PICTURES_AT_ONCE = 6;
const MOST_LINKS = 100;

/**
 * Fetches the public page of a delivery as any reader does, and compares it with what was sent: words, pictures, links, frames, and
 * whether each picture answers. What cannot be reached is said, and what was known before stays.
 */
export async function readBack(
  context: Context,
  deliveryId: string,
  signal: AbortSignal,
): Promise<{ readonly words: string }> {
  const [row] = await context.db.select().from(deliveries).where(eq(deliveries.id, deliveryId));
  if (!row?.address || row.html === null) throw notFound('What was sent');
  const { rules } = await readTarget(context, row.targetId);
  const { address } = row;
  const sent = `<h1>${escapeHtml(row.title)}</h1>\n${row.html}`;
  try {
    const page = await retry(PATIENCE, signal, () =>
      context.outbound.read(address, { limits: PAGE_LIMITS, accept: 'text/html', signal }),
    );
    const html = textOf(page.bytes, page.headers['content-type']);
    const about = { title: row.title, language: rules.language };
    const { differences, pictures, links, films } = await context.texts.compared(
      { sent, html, ...about },
      signal,
    );
    const asked = await askPictures(context, pictures, page.address, signal);
    const foundBytes = page.bytes.length + asked.firstBytes;
    const all = [
      ...asked.differences,
      ...differences,
      ...(await askFilms(context, films, page.address, signal)),
      ...heavy(foundBytes, rules.weightBudget),
      ...(await followed(context, links, page.address, signal)),
      ...(await listingOf(context, rules, row, signal)),
    ].sort((one, other) => Number(isLost(other)) - Number(isLost(one)));
    const answered = `${asked.answered} of ${pictures.length}`;
    const now = new Date();
    const found = { found: html, foundAt: now, askedAt: now, compared: all, answered, foundBytes, words: '' };
    await context.db.update(deliveries).set(found).where(eq(deliveries.id, deliveryId));
    return { words: `It is out. ${sayCompared(all.filter(isLost).length, all.length)}.` };
  } catch (error) {
    if (!(error instanceof OutboundProblem || error instanceof ForeignProblem) || signal.aborted) throw error;
    const why =
      error instanceof OutboundProblem
        ? error.message
        : 'It takes longer to be read than is given to a page.';
    const words = `It could not be read back. ${why}`.slice(0, 500);
    await context.db
      .update(deliveries)
      .set({ words, askedAt: new Date() })
      .where(eq(deliveries.id, deliveryId));
    return { words };
  }
}

/** The links that lead to nothing any more, or to what has moved. Those within the page are its proof's. */
async function followed(
  { outbound }: Context,
  links: readonly LinkFact[],
  base: string,
  signal: AbortSignal,
): Promise<readonly Difference[]> {
  const found: (readonly [at: number, Difference])[] = [];
  const asked = links
    .filter(({ href }) => !href.startsWith('#') && URL.canParse(href, base))
    .map(({ href, words }) => ({ href: new URL(href, base).href, words: words || href }))
    .filter(({ href }) => isWebAddress(href))
    .slice(0, MOST_LINKS);
  await eachAtMost(PICTURES_AT_ONCE, [...asked.entries()], async ([at, { href, words }]) => {
    const there = await linkState(outbound, href, signal);
    if (there?.state === 'dead') found.push([at, { code: 'link-dead', values: { words, href }, spot: null }]);
    else if (there?.state === 'moved')
      found.push([at, { code: 'link-moved', values: { words, found: there.answer.address }, spot: null }]);
  });
  return found.sort(([one], [other]) => one - other).map(([, difference]) => difference);
}

const heavy = (bytes: number, budget: number): readonly Difference[] =>
  bytes > budget ? [{ code: 'page-heavy', values: { bytes, budget }, spot: null }] : [];

/** What the listing does not show of a page. One that nobody named, and that leads nowhere near the page, is no listing. */
async function listingOf(
  context: Context,
  { sending, siteAddress }: Pick<HouseRules, 'sending' | 'siteAddress'>,
  { address, title, teaser }: typeof deliveries.$inferSelect,
  signal: AbortSignal,
): Promise<readonly Difference[]> {
  const where = sending.listing || siteAddress;
  if (where === '' || !address || !teaser) return [];
  try {
    const page = await context.outbound.read(where, { limits: PAGE_LIMITS, accept: 'text/html', signal });
    const listing = { html: textOf(page.bytes, page.headers['content-type']), base: page.address };
    const found = await context.texts.listed({ listing, sent: { address, title, ...teaser } }, signal);
    return sending.listing === '' ? found.filter(({ code }) => code !== 'listing-missing') : found;
  } catch (error) {
    if (!(error instanceof OutboundProblem || error instanceof ForeignProblem) || signal.aborted) throw error;
    return sending.listing === '' ? [] : [{ code: 'listing-missing', values: { title }, spot: null }];
  }
}

interface AskedPictures {
  readonly differences: readonly Difference[];
  readonly answered: number;
  /** Of those that load at first, as far as they say how large they are. */
  readonly firstBytes: number;
}

/** Whether each picture answers, and is the picture that was sent. */
async function askPictures(
  context: Context,
  pictures: readonly StandingPicture[],
  base: string,
  signal: AbortSignal,
): Promise<AskedPictures> {
  const found: Difference[] = [];
  let [answered, firstBytes] = [pictures.length, 0];
  await eachAtMost(PICTURES_AT_ONCE, pictures.slice(0, MOST_PICTURES), async (standing) => {
    const { spot, picture, sent } = standing;
    const answer = await answerOf(context, picture.src, base, signal);
    const name = picture.alt?.trim() || picture.src.split('/').at(-1) || picture.src;
    if (answer.kind === 'none') {
      answered -= 1;
      found.push({ code: 'picture-unanswered', values: { name, status: answer.status }, spot });
      return;
    }
    if (!picture.isLazy) firstBytes += answer.bytes;
    const differs = sizeDiffers(sent, answer.size);
    if (differs) found.push({ code: differs.code, values: { name, ...differs.values }, spot });
  });
  const inOrder = found.sort((one, other) => (one.spot?.sent ?? 0) - (other.spot?.sent ?? 0));
  return { differences: inOrder, answered, firstBytes };
}

/** A page of a hundred films asks for no more files. */
const MOST_FILES = 200;

/** Whether each file of a film answers as what it is, and its captions. */
async function askFilms(
  { outbound }: Context,
  films: readonly StandingFilm[],
  base: string,
  signal: AbortSignal,
): Promise<readonly Difference[]> {
  const files = films.flatMap(({ name, sources, tracks }) => [
    ...sources.map((src) => ({ name, src, type: /^(?:video|audio)\//, language: null })),
    ...tracks.map(({ src, language }) => ({ name, src, type: /^text\/vtt/, language })),
  ]);
  const found = new Map<number, Difference>();
  await eachAtMost(PICTURES_AT_ONCE, [...files.slice(0, MOST_FILES).entries()], async ([at, file]) => {
    const { name, src, type, language } = file;
    const status = await statusOf(outbound, { src, base, type }, signal);
    if (status === 'good') return;
    found.set(
      at,
      language === null
        ? { code: 'film-unanswered', values: { name, status }, spot: null }
        : { code: 'captions-unanswered', values: { name, language, status }, spot: null },
    );
  });
  return [...found].sort(([one], [other]) => one - other).map(([, difference]) => difference);
}

interface AskedFile {
  readonly src: string;
  readonly base: string;
  readonly type: RegExp;
}

/** What its address answers instead of the file; 0 for nothing. */
async function statusOf(
  outbound: Context['outbound'],
  { src, base, type }: AskedFile,
  signal: AbortSignal,
): Promise<number | 'good'> {
  if (!URL.canParse(src, base)) return 0;
  try {
    const { status, headers } = await outbound.probe(new URL(src, base).href, {
      limits: PICTURE_LIMITS,
      accept: '*/*',
      signal,
    });
    const isGood = (status === 200 || status === 206) && type.test(headers['content-type'] ?? '');
    return isGood ? 'good' : status;
  } catch (error) {
    if (!(error instanceof OutboundProblem) || signal.aborted) throw error;
    return 0;
  }
}

type Size = { readonly width: number; readonly height: number };

/** Less than this share of the width that was sent is another file; a shape is another from this share on. */
const LEAST_SHARE = 0.9;
const OTHER_SHAPE = 0.02;

function sizeDiffers(
  sent: Pick<PictureFact, 'width' | 'height'>,
  found: Size | null,
): {
  readonly code: 'picture-smaller' | 'picture-reshaped';
  readonly values: { readonly size: string; readonly found: string };
} | null {
  if (!found || sent.width === null || sent.height === null || sent.height === 0 || found.height === 0)
    return null;
  const say = (size: Size) => `${size.width} × ${size.height}`;
  const values = { size: say({ width: sent.width, height: sent.height }), found: say(found) };
  const shapes = found.width / found.height / (sent.width / sent.height);
  // A px is lost or won where a small picture is rounded.
  const isOther =
    Math.abs(shapes - 1) > OTHER_SHAPE + 1 / Math.min(sent.width, sent.height, found.width, found.height);
  if (isOther) return { code: 'picture-reshaped', values };
  return found.width < sent.width * LEAST_SHARE ? { code: 'picture-smaller', values } : null;
}

type Answer =
  | { readonly kind: 'picture'; readonly bytes: number; readonly size: Size | null }
  /** The status of what came instead, 0 for nothing. */
  | { readonly kind: 'none'; readonly status: number };

async function answerOf(
  { outbound, texts }: Context,
  src: string,
  base: string,
  signal: AbortSignal,
): Promise<Answer> {
  if (!URL.canParse(src, base)) return { kind: 'none', status: 0 };
  try {
    const { status, headers, bytes } = await outbound.probe(new URL(src, base).href, {
      limits: PICTURE_LIMITS,
      accept: 'image/*',
      signal,
    });
    const isPicture = status === 200 && (headers['content-type'] ?? '').startsWith('image/');
    if (!isPicture) return { kind: 'none', status };
    const said = Number(headers['content-length'] ?? '');
    const size = await texts.pictureSize(bytes, signal).catch(() => null);
    return { kind: 'picture', bytes: Number.isSafeInteger(said) && said > 0 ? said : bytes.length, size };
  } catch (error) {
    if (!(error instanceof OutboundProblem) || signal.aborted) throw error;
    return { kind: 'none', status: 0 };
  }
}
