import { createHash, randomUUID } from 'node:crypto';
import { mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import pLimit from 'p-limit';
import sharp from 'sharp';
import * as v from 'valibot';
import { LOOK_EDGE_PX, type LookHash, lookHash } from '#core/media/lookalike.ts';

import type { Context } from '../context.ts';
import { farPath, signedAddress } from '../media/addresses.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { isInline, readInline } from './inline-files.ts';

/** Where a far picture is looked at, and on which page it was found. */
const FarSchema = v.strictObject({ address: v.string(), page: v.string() });
type Far = v.InferOutput<typeof FarSchema>;

const EDGE_PX = 640;
const LIMITS = { bytes: 40_000_000, millis: 15_000 };
const KEPT_MILLIS = 24 * 60 * 60 * 1000;
const inTurn = pLimit(6);

/** An address on the media origin at which a far picture can be looked at, small, without the browser going there. */
export function farAddress(context: Context, far: Far): string {
  return signedAddress(context, farPath(Buffer.from(JSON.stringify(far)).toString('base64url')));
}

export function readFar(text: string): Far | undefined {
  try {
    const read = v.safeParse(FarSchema, JSON.parse(Buffer.from(text, 'base64url').toString('utf8')));
    return read.success ? read.output : undefined;
  } catch {
    return undefined;
  }
}

const underWay = new Map<string, Promise<Buffer>>();

/** The far picture as WebP, at most 640 px wide or high. Fetched once and kept for a day. Throws OutboundProblem. */
export function farPreview(context: Context, far: Far): Promise<Buffer> {
  const path = join(folderOf(context), `${createHash('sha256').update(far.address).digest('hex')}.webp`);
  const known = underWay.get(path);
  if (known) return known;
  const made = cachedOr(path, () => inTurn(() => make(context, far))).finally(() => underWay.delete(path));
  underWay.set(path, made);
  return made;
}

/** How a far picture looks, from its preview. */
export async function farLook(context: Context, far: Far): Promise<LookHash> {
  const grey = await sharp(await farPreview(context, far))
    .greyscale()
    .resize(LOOK_EDGE_PX, LOOK_EDGE_PX, { fit: 'fill' })
    .raw()
    .toBuffer();
  return lookHash(new Uint8Array(grey));
}

async function make(context: Context, { address, page }: Far): Promise<Buffer> {
  if (isInline(address)) return context.pictures.small(await readInline(context, address), EDGE_PX);
  const { bytes, address: from } = await context.outbound.read(address, {
    limits: LIMITS,
    accept: 'image/*,application/pdf,*/*;q=0.5',
    ...(page ? { referrer: page } : {}),
  });
  const shown = (await firstPageOf(context, bytes)) ?? bytes;
  return context.pictures.small(shown, EDGE_PX).catch((cause: unknown) => {
    throw new OutboundProblem('odd-status', new URL(from).hostname, { cause });
  });
}

/** What shows a document that is looked at from afar; null where it is a picture. */
async function firstPageOf(context: Context, bytes: Uint8Array): Promise<Uint8Array | null> {
  const folder = folderOf(context);
  const path = join(folder, `far-${randomUUID()}`);
  await mkdir(folder, { recursive: true });
  try {
    await writeFile(path, bytes);
    return (await (await context.documents.read({ path, name: 'far' }))?.firstPage()) ?? null;
  } finally {
    await rm(path, { force: true });
  }
}

async function cachedOr(path: string, makeIt: () => Promise<Buffer>): Promise<Buffer> {
  const kept = await readFile(path).catch(() => undefined);
  if (kept) return kept;
  const bytes = await makeIt();
  await mkdir(join(path, '..'), { recursive: true });
  const temporary = `${path}.${randomUUID()}.part`;
  await writeFile(temporary, bytes);
  await rename(temporary, path);
  return bytes;
}

const folderOf = (context: Context) => join(context.config.dataFolder, 'previews');

/** Removes previews that are older than a day. */
export async function clearPreviews(context: Context, now: Date): Promise<void> {
  const folder = folderOf(context);
  for (const name of await readdir(folder).catch(() => [])) {
    const path = join(folder, name);
    const { mtimeMs } = await stat(path).catch(() => ({ mtimeMs: 0 }));
    if (now.getTime() - mtimeMs > KEPT_MILLIS) await rm(path, { force: true });
  }
}
