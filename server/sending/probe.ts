import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { LearnedAnswer } from '#api/deliveries.ts';
import { type ProbeOf, probeHtml } from '#core/deliver/probe.ts';
import { isPasted } from '#core/deliver/sending.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { Context } from '../context.ts';
import { probes } from '../db/schema.ts';
import { readHosts } from '../embeds/hosts.ts';
import { textOf } from '../gather/page-text.ts';
import { retry } from '../outbound/retry.ts';
import { HttpProblem } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { wayOf } from './door.ts';
import { SendProblem, type Way } from './way.ts';

const TITLE = 'A probe of what this site keeps';
/** A page of a site with all that stands round it. */
const LIMITS = { bytes: 3_000_000, millis: 20_000 };
/** A site may take a moment until what it took is there for all. */
const PATIENCE = { tries: 4, firstWaitMillis: 500, longestWaitMillis: 3000 };
const MOST_FRAMES = 20;

/** A grey ground of 8 by 6 px, as PNG. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAgAAAAGCAIAAABxZ0isAAAACXBIWXMAAAPoAAAD6AG1e1JrAAAAD0lEQVQI12MoxQEYBlICAEmjQdGvi1/5AAAAAElFTkSuQmCC',
  'base64',
);

/**
 * Sends a page with one of each thing to a site, reads it back, takes it down, and answers what the site did not keep. One that a
 * killed process left there is taken down by the next.
 */
export async function probeTarget(
  context: Context,
  targetId: string,
  signal: AbortSignal,
): Promise<LearnedAnswer> {
  const { rules } = await readTarget(context, targetId);
  if (isPasted(rules.sending))
    throw new HttpProblem(409, `Pages of ${rules.name} are pasted there by hand, and so is the probe.`);
  const way = await wayOf(context, targetId, rules, signal);
  try {
    await removeProbe(context, targetId, way);
    const of = await probeOf(context, way);
    const page = {
      uid: `urn:uuid:${randomUUID()}`,
      title: TITLE,
      summary: '',
      photo: null,
      html: probeHtml(of),
    };
    const address = await way.putPage(page, null);
    if (address === null) throw new SendProblem(`${rules.name} does not say where the probe stands.`);
    await context.db
      .insert(probes)
      .values({ targetId, address, at: new Date() })
      .onDuplicateKeyUpdate({ set: { address } });
    let learned: LearnedAnswer;
    try {
      learned = await retry(PATIENCE, signal, () => learnFrom(context, rules, address, of, signal));
    } catch (error) {
      await removeProbe(context, targetId, way);
      throw error;
    }
    return { ...learned, left: await removeProbe(context, targetId, way) };
  } finally {
    await way.close?.();
  }
}

/** The code of a probe for a site where pages are pasted. */
export async function probeCode(
  context: Context,
  targetId: string,
  signal: AbortSignal,
): Promise<{ readonly html: string }> {
  const { rules } = await readTarget(context, targetId);
  return { html: probeHtml(await ofTarget(context, targetId, rules, signal)) };
}

/** What a site did not keep of a probe that somebody pasted there. */
export async function learnPasted(
  context: Context,
  targetId: string,
  address: string,
  signal: AbortSignal,
): Promise<LearnedAnswer> {
  const { rules } = await readTarget(context, targetId);
  return learnFrom(context, rules, address, await ofTarget(context, targetId, rules, signal), signal);
}

async function ofTarget(
  context: Context,
  targetId: string,
  rules: HouseRules,
  signal: AbortSignal,
): Promise<ProbeOf> {
  const way = await wayOf(context, targetId, rules, signal);
  try {
    return await probeOf(context, way);
  } finally {
    await way.close?.();
  }
}

/** Its picture lies there from then on: the same file each time, so that it is one. */
async function probeOf(context: Context, way: Pick<Way, 'putFile'>): Promise<ProbeOf> {
  const picture = await way.putFile({ name: 'probe.png', type: 'image/png', bytes: PICTURE });
  const { entries } = await readHosts(context);
  const frames = entries.flatMap(({ origin, addresses }) => {
    const framed = addresses.find(({ frame }) => frame !== null)?.frame;
    return framed ? [`${origin}${framed.replace('{id}', 'probe')}`] : [];
  });
  return { picture, frames: frames.slice(0, MOST_FRAMES) };
}

async function learnFrom(
  context: Context,
  { name }: Pick<HouseRules, 'name'>,
  address: string,
  of: ProbeOf,
  signal: AbortSignal,
): Promise<LearnedAnswer> {
  const page = await context.outbound.read(address, { limits: LIMITS, accept: 'text/html', signal });
  const html = textOf(page.bytes, page.headers['content-type']);
  const learned = await context.texts.learned({ html, of }, signal);
  if (learned) return { ...learned, frames: [...learned.frames], tried: [...of.frames], left: null };
  throw new HttpProblem(
    409,
    `The probe does not stand at ${address}, or ${name} keeps nothing of it. Nothing was learned.`,
  );
}

/**
 * Takes the probe down that stands at a site, where one does. Answers where it stands still, for a site that lets nothing be taken
 * down: what it has taught holds all the same, and the next probe tries again.
 */
async function removeProbe({ db, log }: Context, targetId: string, way: Way): Promise<string | null> {
  const [left] = await db.select().from(probes).where(eq(probes.targetId, targetId));
  if (!left) return null;
  try {
    await way.takeDown(left.address);
  } catch (error) {
    log.warn({ err: error, target: targetId }, 'a probe could not be taken down');
    return left.address;
  }
  await db.delete(probes).where(eq(probes.targetId, targetId));
  return null;
}
