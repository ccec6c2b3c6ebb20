import { randomUUID } from 'node:crypto';
import { eq } from 'drizzle-orm';
import { draftFromMetadata, type MetadataDraft } from '#core/formats/metadata.ts';
import { ORIGINAL_FORMATS } from '#core/media/formats.ts';
import { WHOLE } from '#core/media/recipe.ts';
import { type NamePart, nameByPattern } from '#core/naming/pattern.ts';
import { EMPTY_LABEL, type Label, withPatch } from '#core/rights/label.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import { isDuplicate } from '../db/failures.ts';
import { assets, targets } from '../db/schema.ts';
import { ensureCut } from '../imaging/cut-store.ts';
import { type OriginalFacts, readOriginal } from '../imaging/read-original.ts';
import { THUMB_PX, VIEW_PX } from '../media/addresses.ts';
import { derivedColumns } from '../shelf/derived.ts';
import { freeStemLike } from '../shelf/names.ts';
import type { AssetRow } from '../shelf/present.ts';
import { originalKey } from '../storage/storage.ts';

export interface Incoming {
  /** Where the bytes lie now; the file may be moved away. */
  readonly path: string;
  readonly name: string;
  readonly personId: string;
  readonly folder: string;
}

export interface TakenIn {
  readonly row: AssetRow;
  readonly isNew: boolean;
}

/** How many new names are tried when others take them at the same moment. */
const NAME_TRIES = 5;

/**
 * Takes a file in: looks at it, stores the original once by its hash, drafts its label from what it says of
 * itself, names it by the house pattern, and makes the pictures that screens show. The row is written after the
 * files, so a killed process leaves nothing half-known behind.
 */
export async function takeIn(context: Context, incoming: Incoming, now: Date): Promise<TakenIn> {
  const facts = await readOriginal(incoming.path, incoming.name);
  const held = await bySha(context, facts.sha256);
  if (held) return { row: await brought(context, held), isNew: false };
  const draft = await draftOf(context, incoming.path);
  const source = {
    id: randomUUID(),
    sha256: facts.sha256,
    widthPx: facts.size.width,
    heightPx: facts.size.height,
    animated: false,
  };
  await context.storage.take(originalKey(facts.sha256), incoming.path);
  for (const wish of [VIEW_PX, THUMB_PX]) {
    await ensureCut(context, source, WHOLE, Math.min(wish, facts.size.width), 'webp', SCREEN_QUALITY);
  }
  return insertNamed(context, incoming, facts, draft, source.id, now);
}

/** WebP quality of what screens show; what goes out has the target's own. */
export const SCREEN_QUALITY = 80;

async function draftOf(context: Context, path: string): Promise<MetadataDraft> {
  try {
    return draftFromMetadata(await context.metadata.read(path));
  } catch (error) {
    // A file whose pixels are sound but whose metadata is not is still a good piece: it only says nothing.
    context.log.warn({ err: error }, 'metadata could not be read');
    return { patch: {}, drafted: [], hasPlaceOfTaking: false };
  }
}

async function insertNamed(
  context: Context,
  incoming: Incoming,
  facts: OriginalFacts,
  draft: MetadataDraft,
  id: string,
  now: Date,
): Promise<TakenIn> {
  const label = withPatch(EMPTY_LABEL, draft.patch);
  const notes = [
    ...facts.notes,
    ...(draft.hasPlaceOfTaking ? ['It says where it was taken. Cuts leave that out.'] : []),
  ];
  for (let tries = 0; tries < NAME_TRIES; tries += 1) {
    const stem = await freeStem(context, label, incoming.name);
    const row = {
      id,
      sha256: facts.sha256,
      format: facts.format,
      widthPx: facts.size.width,
      heightPx: facts.size.height,
      bytes: facts.bytes,
      alpha: facts.alpha,
      animated: facts.animated,
      stem,
      extension: ORIGINAL_FORMATS[facts.format].extension,
      folder: incoming.folder,
      label,
      drafted: [...draft.drafted],
      notes,
      originalName: cleanName(incoming.name),
      ...derivedColumns(label, stem, incoming.name),
      createdAt: now,
      createdBy: incoming.personId,
    };
    try {
      await context.db.transaction(async (tx) => {
        await tx.insert(assets).values(row);
        await writeActivity(
          tx,
          {
            personId: incoming.personId,
            subject: 'asset',
            subjectId: id,
            what: 'taken in',
            before: null,
            after: { label, stem },
          },
          now,
        );
      });
    } catch (error) {
      if (!isDuplicate(error)) throw error;
      const held = await bySha(context, facts.sha256);
      if (held) return { row: held, isNew: false };
      continue;
    }
    const made = await byId(context, id);
    if (made) return { row: made, isNew: true };
  }
  throw new Error(`No free name was found for ${id}.`);
}

async function freeStem(context: Context, label: Label, fileName: string): Promise<string> {
  const pattern = await patternOf(context);
  const wished = nameByPattern(pattern, {
    title: label.title,
    place: label.place,
    maker: label.maker,
    taken: label.taken,
    fileName,
    kind: 'picture',
  });
  return freeStemLike(context.db, wished);
}

async function patternOf(context: Context): Promise<readonly NamePart[]> {
  const [target] = await context.db.select().from(targets).limit(1);
  return target?.rules.namePattern ?? [{ part: 'subject' }];
}

async function bySha(context: Context, sha256: string): Promise<AssetRow | undefined> {
  const [row] = await context.db.select().from(assets).where(eq(assets.sha256, sha256));
  return row;
}

async function byId(context: Context, id: string): Promise<AssetRow | undefined> {
  const [row] = await context.db.select().from(assets).where(eq(assets.id, id));
  return row;
}

/** A piece that was thrown away and comes in again is brought back. */
async function brought(context: Context, row: AssetRow): Promise<AssetRow> {
  if (!row.deletedAt) return row;
  await context.db.update(assets).set({ deletedAt: null }).where(eq(assets.id, row.id));
  return { ...row, deletedAt: null };
}

function cleanName(name: string): string {
  return name.replace(/\p{C}+/gu, '').slice(-300);
}
