import { eq } from 'drizzle-orm';
import { type Difference, isLost } from '#core/deliver/compare.ts';
import type { StandingPicture } from '#core/deliver/compared.ts';
import { sayCompared } from '#core/deliver/say.ts';
import { escapeHtml } from '#core/page/escape.ts';
import { eachAtMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import { deliveries } from '../db/schema.ts';
import { ForeignProblem } from '../foreign/problem.ts';
import { textOf } from '../gather/page-text.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { retry } from '../outbound/retry.ts';
import { notFound } from '../problem.ts';
import { readTarget } from '../rules/store.ts';

/** A page of a site with all that stands round it; more is no page. */
const PAGE_LIMITS = { bytes: 3_000_000, millis: 20_000 };
/** The head of a picture says what it is. */
const PICTURE_LIMITS = { bytes: 2000, millis: 15_000 };
/** A site may take a moment until what it took is there for all. */
const PATIENCE = { tries: 3, firstWaitMillis: 500, longestWaitMillis: 5000 };
const MOST_PICTURES = 200;
const PICTURES_AT_ONCE = 6;

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
    const { differences, pictures } = await context.texts.compared({ sent, html, ...about }, signal);
    const unanswered = await unansweredOf(context, pictures, page.address, signal);
    const all = [...unanswered, ...differences].sort(
      (one, other) => Number(isLost(other)) - Number(isLost(one)),
    );
    const answered = `${pictures.length - unanswered.length} of ${pictures.length}`;
    const now = new Date();
    const found = { found: html, foundAt: now, askedAt: now, compared: all, answered, words: '' };
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

/** The pictures whose address answers with no picture. */
async function unansweredOf(
  { outbound }: Context,
  pictures: readonly StandingPicture[],
  base: string,
  signal: AbortSignal,
): Promise<readonly Difference[]> {
  const found: Difference[] = [];
  await eachAtMost(PICTURES_AT_ONCE, pictures.slice(0, MOST_PICTURES), async ({ spot, picture }) => {
    const status = await statusOf(outbound, picture.src, base, signal);
    if (status === null) return;
    const name = picture.alt?.trim() || picture.src.split('/').at(-1) || picture.src;
    found.push({ code: 'picture-unanswered', values: { name, status }, spot });
  });
  return found.sort((one, other) => (one.spot?.sent ?? 0) - (other.spot?.sent ?? 0));
}

/** Null where a picture comes; else the status of what came, 0 for nothing. */
async function statusOf(
  outbound: Context['outbound'],
  src: string,
  base: string,
  signal: AbortSignal,
): Promise<number | null> {
  if (!URL.canParse(src, base)) return 0;
  try {
    const answer = await outbound.probe(new URL(src, base).href, {
      limits: PICTURE_LIMITS,
      accept: 'image/*',
      signal,
    });
    const isPicture = answer.status === 200 && (answer.headers['content-type'] ?? '').startsWith('image/');
    return isPicture ? null : answer.status;
  } catch (error) {
    if (!(error instanceof OutboundProblem) || signal.aborted) throw error;
    return 0;
  }
}
