import { eq, inArray } from 'drizzle-orm';
import * as v from 'valibot';
import type { Asset } from '#api/assets.ts';
import { may, type Reader } from '#api/people.ts';
import type { DocumentFacts } from '#core/document/formats.ts';
import type { Hosts } from '#core/embed/host.ts';
import { captionsName } from '#core/film/captions-name.ts';
import { isPlayed } from '#core/film/facts.ts';
import type { CropRect } from '#core/media/crop.ts';
import type { Size } from '#core/media/dimensions.ts';
import { AS_IT_CAME, type Prep, PrepSchema, WHOLE, wholeRecipe, wholeSize } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import type { Piece } from '#core/page/piece.ts';
import type { Context } from '../context.ts';
import { type held, pages, people, placements } from '../db/schema.ts';
import { readHosts } from '../embeds/hosts.ts';
import { heldEmbed } from '../embeds/saved.ts';
import { madeNow, recipeOf, wholeFile } from '../films/made-store.ts';
import {
  captionsPath,
  filePath,
  type OpenedRow,
  openingFor,
  signedAddress,
  thumbPath,
  WHOLE_NAME,
} from '../media/addresses.ts';
import { THUMB_PX, VIEW_PX } from '../media/screen-px.ts';
import { notFound } from '../problem.ts';
import { filmOf } from './own-file.ts';
import { maySee } from './seen.ts';

/** What is held, whole: one row of the view. */
export type AssetRow = typeof held.$inferSelect;

/** One piece as the web knows it; see `presentAssets`. */
export async function presentAsset(context: Context, row: AssetRow, reader: Reader): Promise<Asset> {
  const [asset] = await presentAssets(context, [row], reader);
  if (!asset) throw notFound('This piece');
  return asset;
}

/**
 * Pieces as the web knows them, with where they are used and who brought them, in two queries for all. Those that the reader
 * may not see are left out, whoever asks for them. Who does not read pages is told on how many a piece stands, and not what
 * they are called.
 */
export async function presentAssets(
  context: Context,
  all: readonly AssetRow[],
  reader: Reader,
): Promise<Asset[]> {
  const rows = all.filter((row) => maySee(row, reader));
  if (rows.length === 0) return [];
  const [hosts, uses, names] = await Promise.all([
    hostsFor(context, rows),
    usesOf(
      context,
      rows.map((row) => row.id),
      may(reader.role, 'edit-pages'),
    ),
    namesOf(
      context,
      rows.map((row) => row.createdBy),
    ),
  ]);
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    stem: row.stem,
    extension: row.extension,
    folder: row.folder,
    ...preparedSize(row),
    bytes: row.bytes,
    format: row.format,
    alpha: row.alpha,
    animated: row.animated,
    label: row.label,
    drafted: row.drafted,
    conditions: row.conditions,
    trim: trimOf(row),
    prep: prepOf(row),
    original: originalSize(row),
    ...assetKindOf(context, row, hosts),
    foldedInto: row.foldedInto,
    deletedAt: row.deletedAt?.toISOString() ?? null,
    originalName: row.originalName,
    thumb: thumbAddress(context, row),
    view: viewAddress(context, row),
    plainView:
      signedAddress(
        context,
        thumbPath(row.id, recipeKey(WHOLE), Math.min(VIEW_PX, row.widthPx)),
        openingFor(row),
      ) + pictureMark(row),
    createdAt: row.createdAt.toISOString(),
    createdBy: { id: row.createdBy, name: names.get(row.createdBy) ?? 'Somebody' },
    usedOn: uses.get(row.id) ?? [],
  }));
}

const NO_HOSTS: Hosts = { entries: [], decisions: [] };

/** The hosts of the house, which only embeds need. */
export async function hostsFor(context: Context, rows: readonly Pick<AssetRow, 'embed'>[]): Promise<Hosts> {
  return rows.some(({ embed }) => embed) ? readHosts(context) : NO_HOSTS;
}

type Sized = Pick<AssetRow, 'id' | 'kind' | 'sha256' | 'widthPx' | 'heightPx' | 'trim' | 'prep'>;

/** The small picture of a piece, as it is prepared. */
export function thumbAddress(context: Context, row: Sized & OpenedRow): string {
  return screenAddress(context, row, THUMB_PX);
}

/** The large picture of a piece, as it is prepared. */
export function viewAddress(context: Context, row: Sized & OpenedRow): string {
  return screenAddress(context, row, VIEW_PX);
}

/** Size in px of a piece as it is prepared. */
export function preparedSize(row: Sized): Size {
  return wholeSize(cuttable(row));
}

function screenAddress(context: Context, row: Sized & OpenedRow, wish: number): string {
  const recipe = recipeKey(wholeRecipe(cuttable(row)));
  const path = thumbPath(row.id, recipe, Math.min(wish, preparedSize(row).width));
  return `${signedAddress(context, path, openingFor(row))}${pictureMark(row)}`;
}

const MARK_LETTERS = 8;

/** Another still of a film has another address: browsers keep what they were once given. Other pieces keep their picture. */
export const pictureMark = ({ kind, sha256 }: Pick<AssetRow, 'kind' | 'sha256'>): string =>
  kind === 'film' ? `&p=${sha256.slice(0, MARK_LETTERS)}` : '';

function cuttable(row: Sized) {
  return { size: originalSize(row), trim: trimOf(row), prep: prepOf(row) };
}

/** What is stored of a recipe, read into its type: one that a newer Placard made is left alone and shown as it came. */
function prepOf(row: Sized): Prep {
  const read = v.safeParse(PrepSchema, row.prep);
  return read.success ? read.output : AS_IT_CAME;
}

function originalSize(row: Sized): Size {
  return { width: row.widthPx, height: row.heightPx };
}

function trimOf(row: Sized): CropRect | null {
  return row.trim ?? null;
}

async function usesOf(context: Context, assetIds: readonly string[], withTitles: boolean) {
  const rows = await context.db
    .selectDistinct({ assetId: placements.assetId, pageId: pages.id, title: pages.title })
    .from(placements)
    .innerJoin(pages, eq(placements.pageId, pages.id))
    .where(inArray(placements.assetId, [...assetIds]));
  const uses = new Map<string, Asset['usedOn']>();
  for (const { assetId, pageId, title } of rows) {
    uses.set(assetId, [...(uses.get(assetId) ?? []), { id: pageId, title: withTitles ? title : null }]);
  }
  return uses;
}

async function namesOf(context: Context, personIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await context.db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(inArray(people.id, [...new Set(personIds)]));
  return new Map(rows.map((row) => [row.id, row.name]));
}

/** What `core` has to know of a piece. */
export function pieceOf(row: AssetRow, hosts: Hosts = NO_HOSTS): Piece {
  return {
    id: row.id,
    stem: row.stem,
    extension: row.extension,
    size: originalSize(row),
    trim: trimOf(row),
    prep: prepOf(row),
    bytes: row.bytes,
    alpha: row.alpha,
    animated: row.animated,
    label: row.label,
    isLicenceClaimed: row.drafted.includes('licence'),
    ...ofKind(row, hosts),
  };
}

/** What its kind has of its own. What is stored of it and cannot be read leaves the picture that shows it. */
function ofKind(row: AssetRow, hosts: Hosts) {
  const embed = row.kind === 'embed' ? heldEmbed(row.embed, hosts) : null;
  if (embed) return { kind: 'embed', embed } as const;
  const film = row.kind === 'film' ? filmOf(row) : null;
  if (film)
    return {
      kind: 'film',
      film,
      captions: row.captions ?? [],
      recipe: recipeOf(row),
      made: madeNow(row),
      outOfStep: row.outOfStep ?? [],
      chapters: row.chapters ?? [],
      transcripts: row.transcripts ?? [],
    } as const;
  const document = row.kind === 'document' ? documentOf(row) : null;
  return document ? ({ kind: 'document', document } as const) : ({ kind: 'picture' } as const);
}

function assetKindOf(context: Context, row: AssetRow, hosts: Hosts) {
  const own = ofKind(row, hosts);
  if (own.kind === 'document') return { ...own, file: fileAddress(context, row) };
  if (own.kind !== 'film') return own;
  const tracks = own.captions.map((language) =>
    signedAddress(context, captionsPath(row.id, captionsName(row.stem, language), 'whole'), openingFor(row)),
  );
  const isMadeToPlay = !isPlayed(own.film) && wholeFile(row) !== null;
  const plays = isMadeToPlay ? fileAddress(context, row, WHOLE_NAME) : fileAddress(context, row);
  return { ...own, file: fileAddress(context, row), plays, tracks };
}

/** Where a file of a document or a film is had from, its own where no other is named: another origin than the app's. */
export function fileAddress(
  context: Context,
  row: Pick<AssetRow, 'id' | 'stem' | 'extension'> & OpenedRow,
  name = `${row.stem}.${row.extension}`,
): string {
  return signedAddress(context, filePath(row.id, name), openingFor(row));
}

function documentOf({ documentFormat, documentBytes, documentPages }: AssetRow): DocumentFacts | null {
  return documentFormat === null || documentBytes === null
    ? null
    : { format: documentFormat, bytes: documentBytes, pages: documentPages };
}
