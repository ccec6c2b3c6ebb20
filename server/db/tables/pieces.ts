import { eq, getTableColumns, sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  char,
  double,
  index,
  int,
  json,
  mediumtext,
  mysqlTable,
  mysqlView,
  primaryKey,
  smallint,
  text,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { DocumentFormat } from '#core/document/formats.ts';
import type { Cue, TrackKind } from '#core/film/cue.ts';
import type { FilmFacts } from '#core/film/facts.ts';
import type { Heard } from '#core/film/heard.ts';
import type { StoredMade } from '#core/film/made.ts';
import type { FilmRecipe } from '#core/film/recipe.ts';
import type { Condition } from '#core/media/condition.ts';
import type { CropRect } from '#core/media/crop.ts';
import type { Prep } from '#core/media/recipe.ts';
import type { AssetKind } from '#core/page/piece.ts';
import type { Alt, Label } from '#core/rights/label.ts';
import type { Consent, SeenBy } from '#core/rights/terms.ts';
import { STORED } from '#core/stored.ts';
import type { SavedEmbed } from '../../embeds/saved.ts';
import type { FormatCurve } from '../../imaging/likeness/curve.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';

/**
 * What is held: all that its kinds share. `label` is the whole truth; `title`, `licence`, `alt_state` and `search` are derived
 * from it at each write. What a kind needs besides is in a table of its own: `pictures`, `embeds`, `documents`.
 */
export const assets = mysqlTable(
  'assets',
  {
    id: id().primaryKey(),
    kind: varchar('kind', { length: 10 }).$type<AssetKind>().notNull(),
    /** By what the very same thing is found again: SHA-256 of its file, or of what it embeds. */
    identity: char('identity', { length: 64 }).notNull(),
    /** Size of the picture that shows it, on which the shelf is asked and put in order. */
    widthPx: int('width_px').notNull(),
    heightPx: int('height_px').notNull(),
    stem: varchar('stem', { length: 80 }).notNull(),
    extension: varchar('extension', { length: 5 }).notNull(),
    folder: varchar('folder', { length: 420 }).notNull().default(''),
    label: storedJson<Label>('label', STORED.label).notNull(),
    drafted: json('drafted').$type<string[]>().notNull(),
    /** Another piece that stands on the shelf for this lookalike, or null. */
    foldedInto: varchar('folded_into', { length: 36 }),
    originalName: varchar('original_name', { length: 300 }).notNull(),
    title: varchar('title', { length: 300 }).notNull(),
    creator: varchar('creator', { length: 300 }).notNull(),
    licence: varchar('licence', { length: 30 }).notNull(),
    altState: varchar('alt_state', { length: 12 }).notNull(),
    source: varchar('source', { length: 300 }).notNull().default(''),
    /** The last day on which its terms let it be used; `NO_LAST_DAY` where none is said. */
    lastDay: char('last_day', { length: 10 }).notNull().default('9999-12-31'),
    consent: varchar('consent', { length: 12 }).$type<Consent>().notNull().default('unsaid'),
    /** Its licence is only said by its file or its source, and nobody has kept it. */
    isClaimed: boolean('is_claimed').notNull().default(false),
    search: text('search').notNull(),
    /** Who may see it, as its label says; null in labels from before that could be said. The database reads it at each write. */
    seenBy: varchar('seen_by', { length: 8 })
      .$type<SeenBy['who'] | null>()
      .generatedAlwaysAs(sql`json_value(\`label\`, '$.terms.seenBy.who')`, { mode: 'stored' }),
    version: int('version').notNull().default(1),
    createdAt: time('created_at').notNull(),
    createdBy: varchar('created_by', { length: 36 }).notNull(),
    deletedAt: time('deleted_at'),
  },
  (table) => [
    uniqueIndex('assets_identity').on(table.identity),
    uniqueIndex('assets_stem').on(table.stem),
    // Each order of the shelf, and what its filters count, over what stands on it.
    index('assets_standing_newest').on(table.deletedAt, table.foldedInto, table.createdAt, table.id),
    index('assets_standing_name').on(table.deletedAt, table.foldedInto, table.stem, table.id),
    index('assets_standing_width').on(table.deletedAt, table.foldedInto, table.widthPx, table.id),
    index('assets_standing_licence').on(table.deletedAt, table.foldedInto, table.licence, table.widthPx),
    index('assets_standing_kind').on(table.deletedAt, table.foldedInto, table.kind, table.createdAt),
    index('assets_standing_folder').on(
      table.deletedAt,
      table.foldedInto,
      table.folder,
      table.stem,
      table.createdAt,
      table.widthPx,
      table.id,
    ),
    // All that the ledger of rights asks of, in the order of last days.
    index('assets_standing_last_day').on(
      table.deletedAt,
      table.foldedInto,
      table.lastDay,
      table.id,
      table.licence,
      table.consent,
      table.isClaimed,
    ),
    index('assets_folded').on(table.foldedInto),
    index('assets_seen_by').on(table.seenBy),
  ],
);

export const ofAsset = () =>
  varchar('asset_id', { length: 36 })
    .primaryKey()
    .references(() => assets.id, { onDelete: 'cascade' });

/** The picture that an asset is, or that shows it: the poster of an embed, the first page of a document. */
export const pictures = mysqlTable(
  'pictures',
  {
    assetId: ofAsset(),
    sha256: char('sha256', { length: 64 }).notNull(),
    format: varchar('format', { length: 10 }).notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
    alpha: boolean('alpha').notNull(),
    animated: boolean('animated').notNull(),
    /** What was found on the file when it came in. */
    conditions: storedJson<Condition[]>('conditions', STORED.conditions).notNull().default([]),
    /** The part inside a baked-in border, in fractions, or null. */
    trim: json('trim').$type<CropRect | null>(),
    /** What is done to it wherever it is shown; null for nothing. */
    prep: storedJson<Prep>('prep', STORED.prep),
  },
  (table) => [index('pictures_sha256').on(table.sha256)],
);

export const embeds = mysqlTable('embeds', {
  assetId: ofAsset(),
  embed: storedJson<SavedEmbed>('embed', STORED.embed).notNull(),
});

/** `pages` is null where the file does not say. */
export const documents = mysqlTable('documents', {
  assetId: ofAsset(),
  sha256: char('sha256', { length: 64 }).notNull(),
  format: varchar('format', { length: 10 }).$type<DocumentFormat>().notNull(),
  bytes: bigint('bytes', { mode: 'number' }).notNull(),
  pages: int('pages'),
});

export const films = mysqlTable('films', {
  assetId: ofAsset(),
  sha256: char('sha256', { length: 64 }).notNull(),
  film: storedJson<FilmFacts>('film', STORED.film).notNull(),
  /** The languages of its captions, so that a list need not read them. */
  captions: storedJson<readonly string[]>('captions', STORED.captionLanguages),
  /** What is made of it; null for the file as it came. */
  recipe: storedJson<FilmRecipe>('recipe', STORED.filmRecipe),
  /** The files that were made of it, by this recipe and by earlier ones. */
  made: storedJson<readonly StoredMade[]>('made', STORED.filmMade),
  /** What was heard in it; null while nobody listened. */
  heard: storedJson<Heard>('heard', STORED.heard),
  /** The languages of its chapters and its transcripts. */
  chapters: storedJson<readonly string[]>('chapters', STORED.captionLanguages),
  transcripts: storedJson<readonly string[]>('transcripts', STORED.captionLanguages),
  /** The languages whose captions say something where nothing is heard. */
  outOfStep: storedJson<readonly string[]>('out_of_step', STORED.captionLanguages),
  /** How loud it is over its length, a letter for each moment (`core/film/wave.ts`). */
  wave: mediumtext('wave'),
  /** By what the picture that shows it was made; null for the first one. */
  stillKey: varchar('still_key', { length: 64 }),
  /** The job that makes it, or made it last. */
  makingId: varchar('making_id', { length: 36 }),
});

/** What is said in a film in one language, line by line; its chapters; its transcript, a line for each paragraph. */
export const captionTracks = mysqlTable(
  'caption_tracks',
  {
    assetId: varchar('asset_id', { length: 36 })
      .notNull()
      .references(() => films.assetId, { onDelete: 'cascade' }),
    kind: varchar('kind', { length: 12 }).$type<TrackKind>().notNull().default('captions'),
    /** BCP 47, in small letters. */
    language: varchar('language', { length: 35 }).notNull(),
    cues: storedJson<readonly Cue[]>('cues', STORED.cues).notNull(),
    version: int('version').notNull(),
    updatedAt: time('updated_at').notNull(),
    updatedBy: varchar('updated_by', { length: 36 }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.assetId, table.kind, table.language] })],
);

/** Everything that is held, each whole: what its kind has not is null. Only read; each table is written by itself. */
export const held = mysqlView('held')
  .algorithm('merge')
  .sqlSecurity('invoker')
  .as((from) =>
    from
      .select({
        ...getTableColumns(assets),
        sha256: pictures.sha256,
        format: pictures.format,
        bytes: pictures.bytes,
        alpha: pictures.alpha,
        animated: pictures.animated,
        conditions: pictures.conditions,
        trim: pictures.trim,
        prep: pictures.prep,
        embed: embeds.embed,
        documentSha256: sql<string | null>`${documents.sha256}`.as('document_sha256'),
        documentFormat: sql<DocumentFormat | null>`${documents.format}`.as('document_format'),
        documentBytes: sql<number | null>`${documents.bytes}`.as('document_bytes'),
        documentPages: documents.pages,
        filmSha256: sql<string | null>`${films.sha256}`.as('film_sha256'),
        film: films.film,
        captions: films.captions,
        recipe: films.recipe,
        made: films.made,
        outOfStep: films.outOfStep,
        chapters: films.chapters,
        transcripts: films.transcripts,
      })
      .from(assets)
      .innerJoin(pictures, eq(pictures.assetId, assets.id))
      .leftJoin(embeds, eq(embeds.assetId, assets.id))
      .leftJoin(documents, eq(documents.assetId, assets.id))
      .leftJoin(films, eq(films.assetId, assets.id)),
  );

/** Cuts that were made, with what they weigh. */
export const cuts = mysqlTable(
  'cuts',
  {
    assetId: varchar('asset_id', { length: 36 })
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    recipe: varchar('recipe', { length: 255 }).notNull(),
    widthPx: int('width_px').notNull(),
    format: varchar('format', { length: 10 }).notNull(),
    quality: int('quality').notNull(),
    bytes: int('bytes').notNull(),
    seconds: double('seconds').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.assetId, table.recipe, table.widthPx, table.format, table.quality] }),
  ],
);

/** How bytes and likeness hang together for a cut, as it was measured. `wanted` in thousandths of SSIM. */
export const likenessCurves = mysqlTable(
  'likeness_curves',
  {
    sha256: char('sha256', { length: 64 }).notNull(),
    recipe: varchar('recipe', { length: 255 }).notNull(),
    widthPx: int('width_px').notNull(),
    wanted: smallint('wanted').notNull(),
    curves: storedJson<FormatCurve[]>('curves', STORED.curves).notNull(),
  },
  (table) => [primaryKey({ columns: [table.sha256, table.recipe, table.widthPx, table.wanted] })],
);

/**
 * How each piece looks, as a 64-bit hash and its four quarters: lookalikes agree in one quarter to within one bit,
 * so that they are found by the indexes on the quarters (see `core/media/lookalike.ts`).
 */
export const perceptualHashes = mysqlTable(
  'perceptual_hashes',
  {
    assetId: varchar('asset_id', { length: 36 })
      .primaryKey()
      .references(() => assets.id, { onDelete: 'cascade' }),
    hash: char('hash', { length: 16 }).notNull(),
    first: smallint('first', { unsigned: true }).notNull(),
    second: smallint('second', { unsigned: true }).notNull(),
    third: smallint('third', { unsigned: true }).notNull(),
    fourth: smallint('fourth', { unsigned: true }).notNull(),
  },
  (table) => [
    index('looks_first').on(table.first),
    index('looks_second').on(table.second),
    index('looks_third').on(table.third),
    index('looks_fourth').on(table.fourth),
  ],
);

/** Lookalikes that somebody decided to keep both of. The smaller id stands first. */
export const keptApart = mysqlTable(
  'kept_apart',
  {
    oneId: varchar('one_id', { length: 36 })
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    otherId: varchar('other_id', { length: 36 })
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    personId: varchar('person_id', { length: 36 }).notNull(),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.oneId, table.otherId] })],
);

/** Pieces that a person keeps at hand. */
export const pins = mysqlTable(
  'pins',
  {
    personId: varchar('person_id', { length: 36 }).notNull(),
    assetId: varchar('asset_id', { length: 36 })
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.personId, table.assetId] })],
);

/** Alt texts that contributors propose for pieces of others, one of each person for a piece, until somebody takes them or does not. */
export const proposals = mysqlTable(
  'proposals',
  {
    id: id().primaryKey(),
    assetId: varchar('asset_id', { length: 36 })
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    personId: varchar('person_id', { length: 36 }).notNull(),
    alt: json('alt').$type<Alt>().notNull(),
    extendedDescription: text('extended_description').notNull(),
    at: time('at').notNull(),
  },
  (table) => [
    uniqueIndex('proposals_piece').on(table.assetId, table.personId),
    index('proposals_at').on(table.at),
  ],
);
