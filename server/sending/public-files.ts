import { createHash } from 'node:crypto';
import { and, eq, exists, inArray, isNotNull, isNull, like, not, or } from 'drizzle-orm';
import { Router } from 'express';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { publicFiles, publicUses, sentFiles } from '../db/schema.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { sendInRanges } from '../storage/send-in-ranges.ts';
import { sentKey } from '../storage/storage.ts';
import { orderRemovals } from '../tidy/removals.ts';
import { type FileToSend, SendProblem } from './way.ts';

/** 96 bits of a hash: nobody makes another file of the same. */
const TAG_LETTERS = 24;
const AT_A_TIME = 500;
const FOREVER = 'public, max-age=31536000, immutable';

/** Keeps a file for everybody, and answers its address: under it are these bytes, or none. */
export async function keepPublic(context: Context, file: FileToSend, now: Date): Promise<string> {
  const { db, storage, config } = context;
  if (config.publicOrigin === null) throw new SendProblem('This machine has no address for readers.');
  const sha256 = createHash('sha256').update(file.bytes).digest('hex');
  const { name, type } = file;
  const tag = sha256.slice(0, TAG_LETTERS);
  const key = sentKey(sha256);
  await storage.put(key, file.bytes);
  const row = { tag, name, sha256, type, bytes: file.bytes.length, at: now, goneAt: null };
  await db
    .insert(publicFiles)
    .values(row)
    .onDuplicateKeyUpdate({ set: { goneAt: null } });
  // One that was being removed at this moment is stored again, now that its row keeps it.
  if (!(await storage.has(key))) await storage.put(key, file.bytes);
  return addressOf(config.publicOrigin, tag, name);
}

const addressOf = (origin: string, tag: string, name: string): string => `${origin}${pathOf(tag, name)}`;
const pathOf = (tag: string, name: string): string => `/out/${tag}/${encodeURIComponent(name)}`;

/** What everybody may ask for: files of pages that were pasted, and nothing else. It knows no session. */
export function publicRoutes({ db, storage }: Context): Router {
  const router = Router();
  router.get('/out/:tag/:name', async (request, response) => {
    const isIt = and(
      eq(publicFiles.tag, String(request.params.tag)),
      eq(publicFiles.name, String(request.params.name)),
    );
    const [file] = await db.select().from(publicFiles).where(isIt);
    if (!file) throw notFound('This file');
    if (file.goneAt !== null) throw new HttpProblem(410, 'This file was taken away.');
    response.set({
      'Cache-Control': FOREVER,
      'Content-Type': file.type,
      ETag: `"${file.sha256}"`,
      'X-Content-Type-Options': 'nosniff',
      'Content-Security-Policy': "default-src 'none'; sandbox",
      'Cross-Origin-Resource-Policy': 'cross-origin',
      'Access-Control-Allow-Origin': '*',
      // Whatever a document is, it is saved, and never opened here.
      ...(file.type.startsWith('image/')
        ? {}
        : { 'Content-Disposition': `attachment; filename="${file.name.replace(/[^\w.-]/g, '_')}"` }),
    });
    if (request.fresh) return void response.status(304).end();
    await storage.withFile(sentKey(file.sha256), (path) => sendInRanges(response, path));
  });
  return router;
}

/**
 * Notes which of the files that are served here a sending shows. Answers whether all of them are: one that no other page showed any
 * more may have been taken away since this sending found it there.
 */
export async function noteShown(db: Queries, deliveryId: string, html: string): Promise<boolean> {
  const rows = namedIn(html).map(([tag, name]) => ({ deliveryId, tag, name }));
  await db.delete(publicUses).where(eq(publicUses.deliveryId, deliveryId));
  for (let at = 0; at < rows.length; at += AT_A_TIME)
    await db.insert(publicUses).values(rows.slice(at, at + AT_A_TIME));
  const isOfIt = and(eq(publicUses.tag, publicFiles.tag), eq(publicUses.name, publicFiles.name));
  const gone = await db
    .select({ tag: publicFiles.tag })
    .from(publicUses)
    .innerJoin(publicFiles, isOfIt)
    .where(and(eq(publicUses.deliveryId, deliveryId), isNotNull(publicFiles.goneAt)))
    .limit(1);
  return gone.length === 0;
}

/** Serves no longer what only these sendings showed. */
export async function withdrawPublic(db: Queries, deliveryIds: readonly string[], now: Date): Promise<void> {
  if (deliveryIds.length === 0) return;
  const isOfThese = inArray(publicUses.deliveryId, [...deliveryIds]);
  const shown = await db
    .select({ tag: publicUses.tag, name: publicUses.name })
    .from(publicUses)
    .where(isOfThese)
    .groupBy(publicUses.tag, publicUses.name);
  await db.delete(publicUses).where(isOfThese);
  for (let at = 0; at < shown.length; at += AT_A_TIME)
    await withdrawUnshown(db, shown.slice(at, at + AT_A_TIME), now);
}

/** Of these alone: others may be of a sending under way, which is noted once all of its files are there. */
async function withdrawUnshown(
  db: Queries,
  files: readonly { readonly tag: string; readonly name: string }[],
  now: Date,
): Promise<void> {
  const isOne = or(
    ...files.map(({ tag, name }) => and(eq(publicFiles.tag, tag), eq(publicFiles.name, name))),
  );
  const shows = and(eq(publicUses.tag, publicFiles.tag), eq(publicUses.name, publicFiles.name));
  const isShown = exists(db.select({ tag: publicUses.tag }).from(publicUses).where(shows));
  const gone = await db
    .select({ tag: publicFiles.tag, name: publicFiles.name, sha256: publicFiles.sha256 })
    .from(publicFiles)
    .where(and(isOne, isNull(publicFiles.goneAt), not(isShown)));
  for (const { tag, name, sha256 } of gone) {
    const isIt = and(eq(publicFiles.tag, tag), eq(publicFiles.name, name));
    await db.update(publicFiles).set({ goneAt: now }).where(isIt);
    await db
      .delete(sentFiles)
      .where(and(eq(sentFiles.sha256, sha256), eq(sentFiles.name, name), like(sentFiles.place, 'paste %')));
  }
  await orderRemovals(
    db,
    gone.map(({ sha256 }) => sentKey(sha256)),
    now,
  );
}

/** The files of ours that a code names, each once. */
function namedIn(html: string): readonly (readonly [tag: string, name: string])[] {
  const found = new Map<string, readonly [string, string]>();
  for (const [path, tag = '', name = ''] of html.matchAll(/\/out\/([0-9a-f]{24})\/([\w.%-]{1,300})/g))
    found.set(path, [tag, decoded(name)]);
  return [...found.values()];
}

function decoded(name: string): string {
  try {
    return decodeURIComponent(name);
  } catch {
    return name;
  }
}
