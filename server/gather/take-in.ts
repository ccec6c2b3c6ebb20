import { randomUUID } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import { may } from '#api/people.ts';
import { draftFromMetadata, type MetadataDraft } from '#core/formats/metadata.ts';
import { labelFrom, readLicence } from '#core/gather/reading.ts';
import { type Statement, statements } from '#core/gather/statement.ts';
import type { Condition } from '#core/media/condition.ts';
import { ORIGINAL_FORMATS } from '#core/media/formats.ts';
import { quartersOf } from '#core/media/lookalike.ts';
import { withAncestors } from '#core/naming/paths.ts';
import { type NamingRules, nameFactsOf, nameFor } from '#core/naming/pattern.ts';
import { strictest } from '#core/page/target.ts';
import { EMPTY_LABEL, isLabelField, type Label, type LabelPatch, withPatch } from '#core/rights/label.ts';
import type { LicenceId } from '#core/rights/licences.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { isDuplicate } from '../db/failures.ts';
import { assets, folders, looks, pages, people, provenance, removals, targets } from '../db/schema.ts';
import type { SavedEmbed } from '../embeds/saved.ts';
import { storeCut } from '../imaging/cut-store.ts';
import { type FirstLook, SCREEN_QUALITY } from '../imaging/first-look.ts';
import type { OriginalFacts } from '../imaging/read-original.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { derivedColumns } from '../shelf/derived.ts';
import { freeStemLike, nameInTurn } from '../shelf/names.ts';
import type { AssetRow } from '../shelf/present.ts';
import { originalKey } from '../storage/storage.ts';

/** Where a file came from, and what was said of it there, as it was given. */
export interface Origin {
  readonly way: 'upload' | 'address' | 'source' | 'clip';
  readonly sourceId: string | null;
  /** Names the file within its source, and the state it was in. */
  readonly sourceKey: string | null;
  readonly stamp: string | null;
  readonly address: string | null;
  readonly pageAddress: string | null;
  readonly said: readonly Statement[];
  /** The licence that a person decided on, where the places disagree or say nothing that is clear. */
  readonly decidedLicence: LicenceId | null;
}

export const FROM_OWN_MACHINE: Origin = {
  way: 'upload',
  sourceId: null,
  sourceKey: null,
  stamp: null,
  address: null,
  pageAddress: null,
  said: [],
  decidedLicence: null,
};

export interface Incoming {
  /** Where the bytes lie now; they are left there. */
  readonly path: string;
  readonly name: string;
  readonly personId: string;
  readonly folder: string;
  /** The page that it is brought for, whose target says how it is called; null where it is for no page. */
  readonly pageId: string | null;
  readonly origin: Origin;
  /** What it is the poster of, where it is an embed. */
  readonly embed?: { readonly saved: SavedEmbed; readonly key: string };
}

export interface TakenIn {
  readonly row: AssetRow;
  readonly isNew: boolean;
}

/** How many new names are tried when others take them at the same moment. */
const NAME_TRIES = 5;

/**
 * Takes a file in: looks at it, stores the original once by its hash, drafts its label from what the file and the
 * place it came from say, names it by the house pattern, and makes the pictures that screens show. The row is
 * written after the original, so a killed process leaves nothing half-known behind; the small pictures after the row,
 * for they can be made again.
 */
export async function takeIn(context: Context, incoming: Incoming, now: Date): Promise<TakenIn> {
  const { path, name } = incoming;
  const facts = await context.pictures.facts({ path, name });
  const held = await bySha(context, facts.sha256);
  if (held) return { row: await cameAgain(context, held, incoming, now), isNew: false };
  const [draft, look] = await Promise.all([
    draftOf(context, path),
    context.pictures.firstLook({ path, name, facts }),
  ]);
  const key = originalKey(facts.sha256);
  await context.storage.take(key, path, facts.sha256);
  const taken = await insertNamed(context, incoming, { id: randomUUID(), facts, draft, look }, now);
  // Should the last of an earlier copy have been removed at this very moment, it is stored again.
  if (!(await context.storage.has(key))) await context.storage.take(key, path, facts.sha256);
  if (taken.isNew) await keepScreens(context, taken.row, look);
  return taken;
}

async function keepScreens(context: Context, row: AssetRow, { screens }: FirstLook): Promise<void> {
  for (const { width, bytes } of screens)
    await storeCut(
      context,
      row,
      { recipe: 'whole', width, format: 'webp', quality: SCREEN_QUALITY },
      Buffer.from(bytes),
    );
}

const UNREAD: MetadataDraft = {
  patch: {},
  drafted: [],
  hasPlaceOfTaking: false,
  saysOtherColours: false,
  said: [],
};

async function draftOf(context: Context, path: string): Promise<MetadataDraft> {
  try {
    return draftFromMetadata(await context.metadata.read(path));
  } catch (error) {
    // A file whose pixels are sound but whose metadata is not is still a good piece: it only says nothing.
    context.log.warn({ err: error }, 'metadata could not be read');
    return UNREAD;
  }
}

interface LookedAt {
  readonly id: string;
  readonly facts: OriginalFacts;
  readonly draft: MetadataDraft;
  readonly look: FirstLook;
}

async function insertNamed(
  context: Context,
  incoming: Incoming,
  seen: LookedAt,
  now: Date,
): Promise<TakenIn> {
  const { id, facts } = seen;
  const patch = draftedPatch(seen.draft, incoming.origin);
  const label = withPatch(EMPTY_LABEL, incoming.embed ? { ...patch, ...ofPoster(incoming.embed) } : patch);
  const wished = await wishedStem(context, label, incoming);
  for (let tries = 1; ; tries += 1) {
    try {
      await context.db.transaction(async (tx) => {
        await nameInTurn(tx);
        const stem = await freeStemLike(tx, wished);
        await tx.insert(assets).values(rowOf(incoming, seen, { patch, label, stem, now }));
        await tx.delete(removals).where(eq(removals.key, originalKey(facts.sha256)));
        const [first, second, third, fourth] = quartersOf(seen.look.look);
        await tx.insert(looks).values({ assetId: id, hash: seen.look.look, first, second, third, fourth });
        for (const path of withAncestors(incoming.folder)) await tx.insert(folders).ignore().values({ path });
        await writeProvenance(tx, id, incoming, seen.draft.said, now);
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
      return { row: await byId(context, id), isNew: true };
    } catch (error) {
      if (!isDuplicate(error) || tries >= NAME_TRIES) throw error;
      // Another person handed in the very same file at the same moment; or somebody took the name by renaming.
      const held = await bySha(context, facts.sha256);
      if (held) return { row: await cameAgain(context, held, incoming, now), isNew: false };
    }
  }
}

function rowOf(
  incoming: Incoming,
  seen: LookedAt,
  {
    patch,
    label,
    stem,
    now,
  }: { readonly patch: LabelPatch; readonly label: Label; readonly stem: string; readonly now: Date },
): typeof assets.$inferInsert {
  const { facts } = seen;
  return {
    id: seen.id,
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
    drafted: Object.keys(patch).filter(
      (field) => isLabelField(field) && !(field === 'licence' && incoming.origin.decidedLicence),
    ),
    conditions: conditionsOf(seen, label),
    originalName: cleanName(incoming.name),
    ...(incoming.embed ? { embed: incoming.embed.saved, embedKey: incoming.embed.key } : {}),
    ...derivedColumns(label, stem, incoming.name),
    createdAt: now,
    createdBy: incoming.personId,
  };
}

/** The poster of an embed shows nothing that the frame's own title does not say; one drawn here copies nothing. */
function ofPoster({ saved: { poster } }: NonNullable<Incoming['embed']>): LabelPatch {
  return { alt: { kind: 'decorative' }, ...(poster === 'drawn' ? { licence: 'not-copied' } : {}) };
}

/**
 * The label as the file and its origin draft it. What the origin says comes before what the file says, and a licence
 * on which they disagree is left for a person to decide.
 */
function draftedPatch(draft: MetadataDraft, origin: Origin): LabelPatch {
  if (origin.said.length === 0) return draft.patch;
  const all = [...origin.said, ...draft.said];
  const said = labelFrom(all);
  const { licence: ofFile, ...ofFileBesides } = draft.patch;
  const licence = origin.decidedLicence ?? (readLicence(all).kind === 'silent' ? ofFile : said.licence);
  const sourceAddress = origin.pageAddress ?? origin.address ?? '';
  return {
    ...ofFileBesides,
    ...said,
    ...(licence ? { licence } : {}),
    ...(sourceAddress ? { sourceAddress } : {}),
  };
}

function conditionsOf({ facts, draft, look }: LookedAt, label: Label): Condition[] {
  const hasProfile = facts.conditions.some(({ code }) => code === 'wide-colours');
  return [
    ...facts.conditions,
    ...(draft.saysOtherColours && !hasProfile && !facts.hasProfile
      ? [{ code: 'unknown-colours' } as const]
      : []),
    ...look.conditions,
    ...(draft === UNREAD ? [{ code: 'metadata-unread' } as const] : []),
    ...(draft.hasPlaceOfTaking ? [{ code: 'place-of-taking' } as const] : []),
    ...(label.licence === 'comp' ? [{ code: 'watermarked' } as const] : []),
  ];
}

/** Writes down a coming of a file: for a new piece, or for one that is held already. */
async function writeProvenance(
  db: Queries,
  assetId: string,
  { personId, name, origin }: Incoming,
  saidByFile: readonly Statement[],
  now: Date,
): Promise<void> {
  await db.insert(provenance).values({
    id: randomUUID(),
    assetId,
    at: now,
    personId,
    way: origin.way,
    sourceId: origin.sourceId,
    sourceKey: origin.sourceKey,
    stamp: origin.stamp,
    address: origin.address,
    pageAddress: origin.pageAddress,
    fileName: cleanName(name),
    said: [...statements(...origin.said, ...saidByFile)],
  });
}

/** Where no target is there yet: by what it shows. */
const UNRULED: NamingRules = { namePattern: [{ part: 'subject' }], language: '' };

/** What a piece that comes in is called: as its label would offer it on the page that it is brought for. */
async function wishedStem(
  context: Context,
  label: Label,
  { name, folder, pageId }: Incoming,
): Promise<string> {
  const rules = (await rulesOfPage(context, pageId)) ?? (await strictestRules(context)) ?? UNRULED;
  return nameFor(rules, nameFactsOf({ label, folder, originalName: name }));
}

async function rulesOfPage({ db }: Context, pageId: string | null): Promise<NamingRules | undefined> {
  if (pageId === null) return undefined;
  const [row] = await db
    .select({ rules: targets.rules })
    .from(pages)
    .innerJoin(targets, eq(pages.targetId, targets.id))
    .where(eq(pages.id, pageId));
  return row?.rules;
}

async function strictestRules({ db }: Context): Promise<NamingRules | undefined> {
  return strictest(await db.select().from(targets).orderBy(asc(targets.id)))?.rules;
}

async function bySha(context: Context, sha256: string): Promise<AssetRow | undefined> {
  const [row] = await context.db.select().from(assets).where(eq(assets.sha256, sha256));
  return row;
}

async function byId(context: Context, id: string): Promise<AssetRow> {
  const [row] = await context.db.select().from(assets).where(eq(assets.id, id));
  if (!row) throw new Error(`The piece ${id} is gone as soon as it came.`);
  return row;
}

/**
 * The very file once more: where it came from this time is kept too, and a piece that was thrown away is brought back
 * by whoever may do that. Throws an HttpProblem for who may not.
 */
async function cameAgain(context: Context, row: AssetRow, incoming: Incoming, now: Date): Promise<AssetRow> {
  if (row.deletedAt) await assertMayBringBack(context, row, incoming.personId);
  await context.db.transaction(async (tx) => {
    await writeProvenance(tx, row.id, incoming, [], now);
    if (!row.deletedAt) return;
    await tx.update(assets).set({ deletedAt: null }).where(eq(assets.id, row.id));
    await writeActivity(
      tx,
      {
        personId: incoming.personId,
        subject: 'asset',
        subjectId: row.id,
        what: 'brought it back',
        before: { deletedAt: row.deletedAt },
        after: { deletedAt: null },
      },
      now,
    );
  });
  return { ...row, deletedAt: null };
}

async function assertMayBringBack({ db }: Context, row: AssetRow, personId: string): Promise<void> {
  const [person] = await db.select().from(people).where(eq(people.id, personId));
  if (row.createdBy === personId || (person && may(presentPerson(person).role, 'say-rights'))) return;
  throw new HttpProblem(
    403,
    `This very file was on the shelf and was thrown away (${row.stem}.${row.extension}). Ask an editor to bring it back; nothing was changed.`,
  );
}

function cleanName(name: string): string {
  return name.replace(/\p{C}+/gu, '').slice(-300);
}
