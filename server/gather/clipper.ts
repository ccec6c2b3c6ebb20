import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { and, desc, eq, gt, inArray, isNull } from 'drizzle-orm';
import type { Clip } from '#api/gather.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { clippers, clips, people } from '../db/schema.ts';
import { webAddress } from '../outbound/guard.ts';
import { HttpProblem, notFound } from '../problem.ts';

const VALID_DAYS = 30;
const DAY_MILLIS = 24 * 60 * 60 * 1000;
const CLIPS_KEPT_DAYS = 7;
const CLIPPERS_EACH = 5;
/** Pages that wait for one person to be opened. */
const CLIPS_EACH = 100;
/** The same page handed in twice within this is one. */
const TWICE_MILLIS = 60_000;

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** A clipper of one person as lists show it. */
export interface ClipperAbout {
  readonly id: string;
  readonly madeAt: string;
  readonly expiresAt: string;
}

/**
 * Makes a clipper. Its code opens Placard with the address of the page one is on and the words that are selected
 * there; its token may do that and nothing else, and is known here only by its hash.
 */
export async function makeClipper(
  context: Context,
  personId: string,
  now: Date,
): Promise<ClipperAbout & { readonly code: string }> {
  const token = randomBytes(24).toString('base64url');
  const row = {
    id: randomUUID(),
    personId,
    tokenHash: hashOf(token),
    madeAt: now,
    expiresAt: new Date(now.getTime() + VALID_DAYS * DAY_MILLIS),
  };
  await context.db.transaction(async (tx) => {
    await tx.insert(clippers).values(row);
    // The oldest give way: what nobody looks after any more should not stay open.
    const open = await tx
      .select({ id: clippers.id })
      .from(clippers)
      .where(and(eq(clippers.personId, personId), isNull(clippers.revokedAt), gt(clippers.expiresAt, now)))
      .orderBy(desc(clippers.madeAt), desc(clippers.id));
    const over = open.slice(CLIPPERS_EACH).map(({ id }) => id);
    if (over.length > 0) await tx.update(clippers).set({ revokedAt: now }).where(inArray(clippers.id, over));
    const [person] = await tx
      .select({ id: people.id, name: people.name })
      .from(people)
      .where(eq(people.id, personId));
    await writeAudit(tx, { person: person ?? null, what: 'clipper', subject: person?.name ?? '' }, now);
  });
  return {
    id: row.id,
    madeAt: row.madeAt.toISOString(),
    expiresAt: row.expiresAt.toISOString(),
    code: codeOf(context.config.appOrigin, token),
  };
}

/** What is dragged to the browser's bar. The token travels behind the "#", which no server is ever sent. */
function codeOf(appOrigin: string, token: string): string {
  const script = `(function(){var s=String(window.getSelection()).slice(0,800);window.open(${JSON.stringify(
    `${appOrigin}/clip#`,
  )}+new URLSearchParams({t:${JSON.stringify(token)},a:location.href,s:s}),"placard-clip","width=520,height=420")})()`;
  return `javascript:${encodeURI(script)}`;
}

export async function clippersOf(context: Context, personId: string, now: Date): Promise<ClipperAbout[]> {
  const rows = await context.db
    .select()
    .from(clippers)
    .where(and(eq(clippers.personId, personId), isNull(clippers.revokedAt), gt(clippers.expiresAt, now)))
    .orderBy(desc(clippers.madeAt));
  return rows.map((row) => ({
    id: row.id,
    madeAt: row.madeAt.toISOString(),
    expiresAt: row.expiresAt.toISOString(),
  }));
}

export async function revokeClipper(
  context: Context,
  id: string,
  personId: string,
  now: Date,
): Promise<void> {
  await context.db
    .update(clippers)
    .set({ revokedAt: now })
    .where(and(eq(clippers.id, id), eq(clippers.personId, personId)));
}

/** Takes an address and a selection from a clipper. Whoever holds the token can do this and no more. */
export async function handInClip(
  context: Context,
  clip: { readonly token: string; readonly address: string; readonly selection: string },
  now: Date,
): Promise<string> {
  const [clipper] = await context.db
    .select()
    .from(clippers)
    .where(eq(clippers.tokenHash, hashOf(clip.token)));
  const [person] = clipper
    ? await context.db.select().from(people).where(eq(people.id, clipper.personId))
    : [];
  const isOver = !person || person.leftAt !== null || (person.isDemo && !context.config.isDemo);
  if (!clipper || clipper.revokedAt || clipper.expiresAt < now || isOver)
    throw new HttpProblem(
      403,
      'This clipper no longer works: it is over or was called back. Make a new one under Gather, and drag that to the bar.',
    );
  const handed = {
    personId: clipper.personId,
    address: webAddress(clip.address).href.slice(0, 2000),
    selection: clip.selection.replace(/\p{C}+/gu, ' ').slice(0, 1000),
  };
  const waiting = await context.db
    .select()
    .from(clips)
    .where(and(eq(clips.personId, handed.personId), isNull(clips.openedAt)))
    .orderBy(desc(clips.at))
    .limit(CLIPS_EACH);
  const twice = waiting.find(
    ({ address, selection, at }) =>
      address === handed.address &&
      selection === handed.selection &&
      now.getTime() - at.getTime() < TWICE_MILLIS,
  );
  if (twice) return twice.id;
  if (waiting.length >= CLIPS_EACH)
    throw new HttpProblem(
      429,
      `${CLIPS_EACH} pages wait to be opened under Gather already. Open some of them first.`,
    );
  const id = randomUUID();
  await context.db.insert(clips).values({ id, ...handed, at: now });
  return id;
}

/** Clips of the last days that nobody has opened yet. */
export async function waitingClips(context: Context, personId: string, now: Date): Promise<Clip[]> {
  const rows = await context.db
    .select()
    .from(clips)
    .where(
      and(
        eq(clips.personId, personId),
        isNull(clips.openedAt),
        gt(clips.at, new Date(now.getTime() - CLIPS_KEPT_DAYS * DAY_MILLIS)),
      ),
    )
    .orderBy(desc(clips.at))
    .limit(20);
  return rows.map((row) => ({
    id: row.id,
    address: row.address,
    selection: row.selection,
    at: row.at.toISOString(),
  }));
}

/** Opens a clip: its address and words, once; it no longer waits afterwards. */
export async function openClip(context: Context, id: string, personId: string, now: Date): Promise<Clip> {
  const [row] = await context.db
    .select()
    .from(clips)
    .where(and(eq(clips.id, id), eq(clips.personId, personId)));
  if (!row) throw notFound('This clip');
  await context.db.update(clips).set({ openedAt: now }).where(eq(clips.id, id));
  return { id: row.id, address: row.address, selection: row.selection, at: row.at.toISOString() };
}
