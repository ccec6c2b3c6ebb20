import { randomUUID } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import { mayChangePiece, type Person } from '#api/people.ts';
import { WHOLE_FILM } from '#core/film/recipe.ts';
import type { MetadataDraft } from '#core/formats/metadata.ts';
import { labelFrom, readLicence } from '#core/gather/reading.ts';
import { type Statement, statements } from '#core/gather/statement.ts';
import type { Condition } from '#core/media/condition.ts';
import { quartersOf } from '#core/media/lookalike.ts';
import { withAncestors } from '#core/naming/paths.ts';
import { type NamingRules, nameFactsOf, nameFor } from '#core/naming/pattern.ts';
import { strictest } from '#core/page/target.ts';
import { EMPTY_LABEL, isLabelField, type Label, type LabelPatch, withPatch } from '#core/rights/label.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { isDuplicate } from '../db/failures.ts';
import {
  assets,
  documents,
  embeds,
  films,
  folders,
  held,
  pages,
  people,
  perceptualHashes,
  pictures,
  provenance,
  removals,
  targets,
} from '../db/schema.ts';
import { orderMaking } from '../films/order.ts';
import { storeCut } from '../imaging/cut-store.ts';
import { type FirstLook, SCREEN_QUALITY } from '../imaging/first-look.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { withOwnLicence } from '../rights/house-licences.ts';
import { derivedColumns } from '../shelf/derived.ts';
import { freeStemLike, nameInTurn } from '../shelf/names.ts';
import type { AssetRow } from '../shelf/present.ts';
import { maySee } from '../shelf/seen.ts';
import { originalKey } from '../storage/storage.ts';
import { type Arrival, comingOf, UNREAD } from './arrival.ts';
import type { Incoming, Origin } from './incoming.ts';

export interface TakenIn {
  readonly row: AssetRow;
  readonly isNew: boolean;
}

/** How many new names are tried when others take them at the same moment. */
const NAME_TRIES = 5;

/**
 * Takes a file in, of whatever kind it is: looks at it, stores the original once by its hash, drafts its label from what the
 * file and the place it came from say, names it by the house pattern, and makes the pictures that screens show. The row is
 * written after the files, so a killed process leaves nothing half-known behind; the small pictures after the row,
 * for they can be made again.
 */
export async function takeIn(context: Context, incoming: Incoming, now: Date): Promise<TakenIn> {
  const coming = await comingOf(context, incoming);
  const known = await byIdentity(context, coming.identity);
  if (known) return { row: await cameAgain(context, known, incoming, now), isNew: false };
  return coming.arrive(async (arrival) => {
    await storeFiles(context, arrival);
    const taken = await insertNamed(context, incoming, arrival, now);
    // Should the last of an earlier copy have been removed at this very moment, they are stored again.
    await storeFiles(context, arrival);
    if (taken.isNew) await keepScreens(context, taken.row, arrival.shown.look);
    return taken;
  });
}

async function storeFiles({ storage }: Context, { files }: Arrival): Promise<void> {
  for (const { sha256, path } of files) {
    const key = originalKey(sha256);
    if (!(await storage.has(key))) await storage.take(key, path, sha256);
  }
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

async function insertNamed(
  context: Context,
  incoming: Incoming,
  arrival: Arrival,
  now: Date,
): Promise<TakenIn> {
  const id = randomUUID();
  const patch = await withOwnLicence(context.db, draftedPatch(arrival.draft, incoming.origin), [
    ...incoming.origin.said,
    ...arrival.draft.said,
  ]);
  const label = withPatch(EMPTY_LABEL, { ...patch, ...arrival.settled });
  const wished = await wishedStem(context, label, incoming);
  for (let tries = 1; ; tries += 1) {
    try {
      await context.db.transaction(async (tx) => {
        await nameInTurn(tx);
        const stem = await freeStemLike(tx, wished);
        await tx.insert(assets).values(rowOf(incoming, arrival, { id, patch, label, stem, now }));
        await insertKind(tx, id, incoming, { arrival, label, now });
        for (const { sha256 } of arrival.files)
          await tx.delete(removals).where(eq(removals.key, originalKey(sha256)));
        for (const path of withAncestors(incoming.folder)) await tx.insert(folders).ignore().values({ path });
        await writeProvenance(tx, id, incoming, arrival.draft.said, now);
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
      const known = await byIdentity(context, arrival.identity);
      if (known) return { row: await cameAgain(context, known, incoming, now), isNew: false };
    }
  }
}

/** What the kind of a piece has of its own, and the picture that shows it. */
async function insertKind(
  tx: Queries,
  assetId: string,
  incoming: Incoming,
  { arrival, label, now }: { readonly arrival: Arrival; readonly label: Label; readonly now: Date },
): Promise<void> {
  const { facts, look } = arrival.shown;
  await tx.insert(pictures).values({
    assetId,
    sha256: facts.sha256,
    format: facts.format,
    bytes: facts.bytes,
    alpha: facts.alpha,
    animated: facts.animated,
    conditions: arrival.kind === 'picture' ? conditionsOf(arrival, label) : [],
  });
  switch (arrival.kind) {
    case 'picture': {
      const [first, second, third, fourth] = quartersOf(look.look);
      await tx.insert(perceptualHashes).values({ assetId, hash: look.look, first, second, third, fourth });
      return;
    }
    case 'embed':
      await tx.insert(embeds).values({ assetId, embed: arrival.embed });
      return;
    case 'document': {
      const { format, bytes, pages: count } = arrival.document;
      await tx.insert(documents).values({ assetId, sha256: arrival.identity, format, bytes, pages: count });
      return;
    }
    case 'film':
      await tx.insert(films).values({ assetId, sha256: arrival.identity, film: arrival.film });
      await orderMaking(
        tx,
        { assetId, title: label.title || incoming.name, recipe: WHOLE_FILM, personId: incoming.personId },
        now,
      );
  }
}

function rowOf(
  incoming: Incoming,
  { kind, identity, extension, shown }: Arrival,
  {
    id,
    patch,
    label,
    stem,
    now,
  }: {
    readonly id: string;
    readonly patch: LabelPatch;
    readonly label: Label;
    readonly stem: string;
    readonly now: Date;
  },
): typeof assets.$inferInsert {
  const drafted = Object.keys(patch).filter(
    (field) =>
      isLabelField(field) &&
      // It is told with the licence.
      field !== 'houseLicence' &&
      !(field === 'licence' && incoming.origin.decidedLicence),
  );
  return {
    id,
    kind,
    identity,
    widthPx: shown.facts.size.width,
    heightPx: shown.facts.size.height,
    stem,
    extension,
    folder: incoming.folder,
    label,
    drafted,
    originalName: cleanName(incoming.name),
    ...derivedColumns(label, stem, incoming.name, drafted),
    createdAt: now,
    createdBy: incoming.personId,
  };
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

function conditionsOf({ shown: { facts, look }, draft }: Arrival, label: Label): Condition[] {
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
  { name, folder, pageId, namedBy }: Incoming,
): Promise<string> {
  const rules = namedBy ?? (await rulesOfPage(context, pageId)) ?? (await strictestRules(context)) ?? UNRULED;
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

async function byIdentity(context: Context, identity: string): Promise<AssetRow | undefined> {
  const [row] = await context.db.select().from(held).where(eq(held.identity, identity));
  return row;
}

async function byId(context: Context, id: string): Promise<AssetRow> {
  const [row] = await context.db.select().from(held).where(eq(held.id, id));
  if (!row) throw new Error(`The piece ${id} is gone as soon as it came.`);
  return row;
}

/**
 * The very file once more: where it came from this time is kept too, and a piece that was thrown away is brought back
 * by whoever may do that. Throws an HttpProblem for who may not.
 */
async function cameAgain(context: Context, row: AssetRow, incoming: Incoming, now: Date): Promise<AssetRow> {
  const person = await assertSeenBy(context, row, incoming.personId);
  if (row.deletedAt) assertMayBringBack(row, person);
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

/** Whoever brings it may be told that it is there. */
export async function assertSeenBy({ db }: Context, row: AssetRow, personId: string): Promise<Person> {
  const [found] = await db.select().from(people).where(eq(people.id, personId));
  const person = found && presentPerson(found);
  if (person && maySee(row, person)) return person;
  throw new HttpProblem(
    403,
    'This very file is held already, for a group of the house that you are not of. Ask the rights keeper; nothing was changed.',
  );
}

function assertMayBringBack(row: AssetRow, person: Person): void {
  if (mayChangePiece(person, row.createdBy)) return;
  throw new HttpProblem(
    403,
    `This very file was on the shelf and was thrown away (${row.stem}.${row.extension}). Ask an editor to bring it back; nothing was changed.`,
  );
}

function cleanName(name: string): string {
  return name.replace(/\p{C}+/gu, '').slice(-300);
}
