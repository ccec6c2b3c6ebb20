import { eq, getTableColumns, sql } from 'drizzle-orm';
import {
  bigint,
  boolean,
  char,
  datetime,
  double,
  index,
  int,
  json,
  mysqlTable,
  mysqlView,
  primaryKey,
  smallint,
  text,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { FoundPicture } from '#api/gather.ts';
import type { PurchaseState } from '#api/purchases.ts';
import type { DocumentFormat } from '#core/document/formats.ts';
import type { HostDecision, HostEntry } from '#core/embed/host.ts';
import type { Statement } from '#core/gather/statement.ts';
import type { Condition } from '#core/media/condition.ts';
import type { CropRect } from '#core/media/crop.ts';
import type { Prep } from '#core/media/recipe.ts';
import type { PageDoc } from '#core/page/model.ts';
import type { AssetKind } from '#core/page/piece.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { Difference } from '#core/rights/differences.ts';
import type { HouseLicence } from '#core/rights/house-licence.ts';
import type { Alt, Label } from '#core/rights/label.ts';
import type { Offer } from '#core/rights/offer.ts';
import type { Consent, SeenBy } from '#core/rights/terms.ts';
import type { RunRow } from '#core/run/plan.ts';
import { STORED } from '#core/stored.ts';
import type { SavedEmbed } from '../embeds/saved.ts';
import type { FormatCurve } from '../imaging/likeness/curve.ts';
import { storedJson } from './stored-json.ts';

const id = () => varchar('id', { length: 36 });
/** Times are UTC with milliseconds. */
const time = (name: string) => datetime(name, { fsp: 3, mode: 'date' });

export const settings = mysqlTable('settings', {
  name: varchar('name', { length: 40 }).primaryKey(),
  value: text('value').notNull(),
});

export const people = mysqlTable(
  'people',
  {
    id: id().primaryKey(),
    name: varchar('name', { length: 100 }).notNull(),
    email: varchar('email', { length: 200 }).notNull(),
    role: varchar('role', { length: 20 }).notNull(),
    passwordHash: varchar('password_hash', { length: 200 }).notNull(),
    /** When the password was set last: sign-ins from before it are at an end. Null for the first one. */
    passwordAt: time('password_at'),
    /** When the person left: signs in no more, and stands by what they did. */
    leftAt: time('left_at'),
    /** Made up for the demo, with a password that everybody knows: signs in only while the demo runs. */
    isDemo: boolean('is_demo').notNull().default(false),
    /** The password was made here and handed over: the first thing to do is to take one of one's own. */
    mustChange: boolean('must_change').notNull().default(false),
  },
  (table) => [uniqueIndex('people_email').on(table.email)],
);

export const sessions = mysqlTable(
  'sessions',
  {
    id: varchar('id', { length: 128 }).primaryKey(),
    data: json('data').notNull(),
    expiresAt: time('expires_at').notNull(),
    /** Whose sign-in it is, from where and with what, for the person to see; null before anybody signed in. */
    personId: varchar('person_id', { length: 36 }),
    signedInAt: time('signed_in_at'),
    seenAt: time('seen_at'),
    address: varchar('address', { length: 60 }).notNull().default(''),
    agent: varchar('agent', { length: 200 }).notNull().default(''),
  },
  (table) => [index('sessions_expires').on(table.expiresAt), index('sessions_person').on(table.personId)],
);

/**
 * What has to be answered for: sign-ins and refused ones, rights, roles, rules, what went out, what was removed. Written
 * with the deed and never changed. `who` is the name as it was then, for people change and go.
 */
export const audit = mysqlTable(
  'audit',
  {
    id: bigint('id', { mode: 'number' }).autoincrement().primaryKey(),
    at: time('at').notNull(),
    personId: varchar('person_id', { length: 36 }),
    who: varchar('who', { length: 200 }).notNull(),
    what: varchar('what', { length: 30 }).notNull(),
    subject: varchar('subject', { length: 300 }).notNull(),
    detail: varchar('detail', { length: 1000 }).notNull().default(''),
    /** The network address of whoever did it. */
    address: varchar('address', { length: 60 }).notNull().default(''),
  },
  (table) => [
    index('audit_at').on(table.at),
    index('audit_what').on(table.what, table.at),
    // Refused sign-ins of one account within the last minutes.
    index('audit_subject').on(table.what, table.subject, table.at),
  ],
);

export const targets = mysqlTable('targets', {
  id: id().primaryKey(),
  rules: storedJson<HouseRules>('rules', STORED.rules).notNull(),
  version: int('version').notNull().default(1),
});

/** The hosts of embeds that the house trusts: entries and recorded decisions. One row for the house. */
export const embedHosts = mysqlTable('embed_hosts', {
  id: id().primaryKey(),
  entries: storedJson<HostEntry[]>('entries', STORED.hosts).notNull(),
  decisions: storedJson<HostDecision[]>('decisions', STORED.decisions).notNull(),
  version: int('version').notNull().default(1),
});

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

const ofAsset = () =>
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
      })
      .from(assets)
      .innerJoin(pictures, eq(pictures.assetId, assets.id))
      .leftJoin(embeds, eq(embeds.assetId, assets.id))
      .leftJoin(documents, eq(documents.assetId, assets.id)),
  );

/** Licences of the house's own, with the columns of the catalogue. Labels carry what theirs says as it stands. */
export const houseLicences = mysqlTable('house_licences', {
  id: varchar('id', { length: 24 }).primaryKey(),
  name: varchar('name', { length: 120 }).notNull(),
  short: varchar('short', { length: 60 }).notNull(),
  address: text('address').notNull(),
  publish: boolean('publish').notNull(),
  decision: boolean('decision').notNull(),
  commercial: boolean('commercial').notNull(),
  educationalOnly: boolean('educational_only').notNull(),
  onlyIn: char('only_in', { length: 3 }),
  allowsDerivatives: boolean('allows_derivatives').notNull(),
  owesCredit: varchar('owes_credit', { length: 5 }).$type<HouseLicence['owesCredit']>().notNull(),
  keepsNotice: boolean('keeps_notice').notNull(),
  sayChanges: boolean('say_changes').notNull(),
  shareAlike: boolean('share_alike').notNull(),
  titleInCredit: varchar('title_in_credit', { length: 6 }).$type<HouseLicence['titleInCredit']>().notNull(),
  version: int('version').notNull().default(1),
});

export const folders = mysqlTable('folders', { path: varchar('path', { length: 420 }).primaryKey() });

export const pages = mysqlTable(
  'pages',
  {
    id: id().primaryKey(),
    targetId: varchar('target_id', { length: 36 })
      .notNull()
      .references(() => targets.id),
    title: varchar('title', { length: 300 }).notNull(),
    doc: storedJson<PageDoc>('doc', STORED.page).notNull(),
    due: varchar('due', { length: 10 }),
    version: int('version').notNull().default(1),
    createdAt: time('created_at').notNull(),
    updatedAt: time('updated_at').notNull(),
    updatedBy: varchar('updated_by', { length: 36 }).notNull(),
  },
  (table) => [index('pages_updated').on(table.updatedAt)],
);

/**
 * States of pages that are kept: those that a person named, and those that went out. Of one state there is one row, however
 * often it goes out; `sent` says how it did last.
 */
export const pageVersions = mysqlTable(
  'page_versions',
  {
    id: id().primaryKey(),
    pageId: varchar('page_id', { length: 36 })
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    name: varchar('name', { length: 200 }).notNull().default(''),
    sent: varchar('sent', { length: 40 }),
    sentAt: time('sent_at'),
    doc: storedJson<PageDoc>('doc', STORED.page).notNull(),
    createdAt: time('created_at').notNull(),
    createdBy: varchar('created_by', { length: 36 }),
  },
  (table) => [index('page_versions_page').on(table.pageId, table.createdAt)],
);

/** Pages that are a translation of another, and the state of that one which they say. */
export const translations = mysqlTable(
  'translations',
  {
    pageId: varchar('page_id', { length: 36 })
      .primaryKey()
      .references(() => pages.id, { onDelete: 'cascade' }),
    originalId: varchar('original_id', { length: 36 })
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    base: storedJson<PageDoc>('base', STORED.page).notNull(),
    version: int('version').notNull().default(1),
  },
  (table) => [index('translations_original').on(table.originalId)],
);

/** What stands on many pages alike: its name, and its blocks as those of a page. */
export const keptParts = mysqlTable('kept_parts', {
  id: id().primaryKey(),
  name: varchar('name', { length: 200 }).notNull(),
  doc: storedJson<PageDoc>('doc', STORED.page).notNull(),
  version: int('version').notNull().default(1),
  updatedAt: time('updated_at').notNull(),
  updatedBy: varchar('updated_by', { length: 36 }).notNull(),
});

/** Which part stands on which page: derived from page documents at each save, as `placements` are. */
export const pageParts = mysqlTable(
  'page_parts',
  {
    pageId: varchar('page_id', { length: 36 })
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    partId: varchar('part_id', { length: 64 }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.pageId, table.partId] }),
    index('page_parts_part').on(table.partId),
  ],
);

/** Who has a page open, a row for each window: where in it they are, and when that was last said. */
export const sittings = mysqlTable(
  'sittings',
  {
    id: id().primaryKey(),
    pageId: varchar('page_id', { length: 36 })
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    personId: varchar('person_id', { length: 36 })
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    block: varchar('block', { length: 64 }),
    seenAt: time('seen_at').notNull(),
  },
  (table) => [index('sittings_page').on(table.pageId, table.seenAt)],
);

/** Which piece stands on which page: derived from page documents at each save, so that "where used" is one query. */
export const placements = mysqlTable(
  'placements',
  {
    pageId: varchar('page_id', { length: 36 })
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    placementId: varchar('placement_id', { length: 64 }).notNull(),
    assetId: varchar('asset_id', { length: 36 }).notNull(),
    ordinal: int('ordinal').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.pageId, table.placementId] }),
    index('placements_asset').on(table.assetId),
  ],
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

/** Each coming of a file: when, by whom, from where, and what was said of it there, stored as it was given. */
export const provenance = mysqlTable(
  'provenance',
  {
    id: id().primaryKey(),
    assetId: varchar('asset_id', { length: 36 })
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    at: time('at').notNull(),
    personId: varchar('person_id', { length: 36 }).notNull(),
    way: varchar('way', { length: 10 }).notNull(),
    sourceId: varchar('source_id', { length: 30 }),
    sourceKey: varchar('source_key', { length: 300 }),
    /** Changes when the source's file changes; the same stamp is not fetched again. */
    stamp: varchar('stamp', { length: 200 }),
    address: varchar('address', { length: 2000 }),
    pageAddress: varchar('page_address', { length: 2000 }),
    fileName: varchar('file_name', { length: 300 }).notNull(),
    said: storedJson<Statement[]>('said', STORED.statements).notNull(),
  },
  (table) => [
    index('provenance_asset').on(table.assetId, table.at),
    index('provenance_source').on(table.sourceId, table.sourceKey),
    index('provenance_key').on(table.sourceKey),
  ],
);

/** What the page that a piece came from said when it came, and when it was asked again. */
export const sourceAsks = mysqlTable(
  'source_asks',
  {
    assetId: ofAsset(),
    askedAt: time('asked_at').notNull(),
    before: storedJson<Statement[]>('said_before', STORED.statements).notNull(),
    now: storedJson<Statement[]>('said_now', STORED.statements).notNull(),
  },
  (table) => [index('source_asks_asked').on(table.askedAt)],
);

/** What files and sources say otherwise than a label; `keptBy` decided that the label is right all the same. */
export const saidOtherwise = mysqlTable(
  'said_otherwise',
  {
    assetId: varchar('asset_id', { length: 36 })
      .notNull()
      .references(() => assets.id, { onDelete: 'cascade' }),
    by: varchar('said_by', { length: 8 }).$type<Difference['by']>().notNull(),
    about: varchar('about', { length: 10 }).$type<Difference['about']>().notNull(),
    says: varchar('says', { length: 2000 }).notNull(),
    at: time('at').notNull(),
    keptBy: varchar('kept_by', { length: 36 }),
  },
  (table) => [primaryKey({ columns: [table.assetId, table.by, table.about] })],
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

/** A bookmarklet made for one person. Its token is known only by its hash, and may hand in an address and words. */
export const clippers = mysqlTable(
  'clippers',
  {
    id: id().primaryKey(),
    personId: varchar('person_id', { length: 36 })
      .notNull()
      .references(() => people.id),
    tokenHash: char('token_hash', { length: 64 }).notNull(),
    madeAt: time('made_at').notNull(),
    expiresAt: time('expires_at').notNull(),
    revokedAt: time('revoked_at'),
  },
  (table) => [uniqueIndex('clippers_token').on(table.tokenHash), index('clippers_person').on(table.personId)],
);

/** Pages that were handed in by a clipper and wait to be read. */
export const clips = mysqlTable(
  'clips',
  {
    id: id().primaryKey(),
    personId: varchar('person_id', { length: 36 }).notNull(),
    address: varchar('address', { length: 2000 }).notNull(),
    selection: varchar('selection', { length: 1000 }).notNull(),
    at: time('at').notNull(),
    openedAt: time('opened_at'),
  },
  (table) => [index('clips_person').on(table.personId, table.at)],
);

/** The single pictures of a gathering job, each with what became of it: a step is done once, whoever does it. */
export const importItems = mysqlTable(
  'import_items',
  {
    jobId: varchar('job_id', { length: 36 })
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    ordinal: int('ordinal').notNull(),
    picture: storedJson<FoundPicture>('picture', STORED.found).notNull(),
    state: varchar('state', { length: 10 }).notNull(),
    sentence: varchar('sentence', { length: 500 }).notNull().default(''),
    assetId: varchar('asset_id', { length: 36 }),
    isNew: boolean('is_new'),
  },
  (table) => [primaryKey({ columns: [table.jobId, table.ordinal] })],
);

/**
 * The single pieces of a run, each with what was settled for it before the run and what became of it. `version` is the
 * piece's when it was settled: one that somebody changed since is left as it is.
 */
export const runSteps = mysqlTable(
  'run_steps',
  {
    jobId: varchar('job_id', { length: 36 })
      .notNull()
      .references(() => jobs.id, { onDelete: 'cascade' }),
    ordinal: int('ordinal').notNull(),
    assetId: varchar('asset_id', { length: 36 }).notNull(),
    row: storedJson<RunRow>('row', STORED.runRow).notNull(),
    version: int('version').notNull(),
    state: varchar('state', { length: 10 }).notNull(),
    sentence: varchar('sentence', { length: 500 }).notNull().default(''),
    /** Bytes of all files that were made, once they are. */
    madeBytes: bigint('made_bytes', { mode: 'number' }),
    endedAt: time('ended_at'),
  },
  (table) => [
    primaryKey({ columns: [table.jobId, table.ordinal] }),
    index('run_steps_asset').on(table.assetId),
  ],
);

/**
 * Originals that are bought for comps. The ID is the key of the order at the agency, so that it is paid for once however often
 * it is asked for; `amount` is in the smallest unit of the currency. One comp has one purchase that is under way or done.
 */
export const purchases = mysqlTable(
  'purchases',
  {
    id: id().primaryKey(),
    /** The comp whose original is bought; the piece itself where its licence is renewed. */
    compId: varchar('comp_id', { length: 36 }).notNull(),
    isRenewal: boolean('is_renewal').notNull().default(false),
    sourceId: varchar('source_id', { length: 30 }).notNull(),
    picture: varchar('picture', { length: 300 }).notNull(),
    offer: storedJson<Offer>('offer', STORED.offer).notNull(),
    amount: bigint('amount', { mode: 'number' }).notNull(),
    currency: char('currency', { length: 3 }).notNull(),
    licensedTo: varchar('licensed_to', { length: 300 }).notNull(),
    state: varchar('state', { length: 12 }).$type<PurchaseState>().notNull(),
    /** The agency's own number for it. */
    receipt: varchar('receipt', { length: 200 }).notNull().default(''),
    /** Where the agency hands the original out. */
    file: varchar('file', { length: 2000 }).notNull().default(''),
    originalId: varchar('original_id', { length: 36 }),
    /** When it took the comp's place, which names that step when it is taken back. */
    replacedAt: time('replaced_at'),
    pages: int('pages').notNull().default(0),
    createdBy: varchar('created_by', { length: 36 }).notNull(),
    createdAt: time('created_at').notNull(),
  },
  (table) => [
    index('purchases_comp').on(table.compId),
    index('purchases_person').on(table.createdBy, table.createdAt),
    index('purchases_state').on(table.state, table.createdAt),
  ],
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

/** Errands that somebody gave to somebody, by what waits. */
export const errandsGiven = mysqlTable('errands_given', {
  errandId: varchar('errand_id', { length: 100 }).primaryKey(),
  toId: varchar('to_id', { length: 36 }).notNull(),
  byId: varchar('by_id', { length: 36 }).notNull(),
  note: varchar('note', { length: 500 }).notNull(),
  at: time('at').notNull(),
});

/** Names under which files of a piece went out. They go on to whatever it is called now, and are given to no other. */
export const namesOut = mysqlTable(
  'names_out',
  {
    stem: varchar('stem', { length: 80 }).primaryKey(),
    assetId: varchar('asset_id', { length: 36 }).notNull(),
    at: time('at').notNull(),
    /** How files were called then: 1 before, 2 since the stem is set apart from what follows it. */
    scheme: smallint('scheme').notNull().default(1),
  },
  (table) => [index('names_out_asset').on(table.assetId)],
);

/** Who changed what, when, and how it was before and after: undo, history and audit in one. */
export const activity = mysqlTable(
  'activity',
  {
    id: bigint('id', { mode: 'number' }).autoincrement().primaryKey(),
    at: time('at').notNull(),
    personId: varchar('person_id', { length: 36 }).notNull(),
    subject: varchar('subject', { length: 10 }).notNull(),
    subjectId: varchar('subject_id', { length: 36 }).notNull(),
    what: varchar('what', { length: 100 }).notNull(),
    before: json('before'),
    after: json('after'),
  },
  (table) => [
    index('activity_subject').on(table.subject, table.subjectId, table.id),
    index('activity_at').on(table.at),
  ],
);

/**
 * Uploads under way: whose they are, how much they may take, and who writes to them just now. Their bytes lie in the
 * uploads folder; a lock that is not renewed is free again.
 */
export const uploads = mysqlTable(
  'uploads',
  {
    id: char('id', { length: 32 }).primaryKey(),
    personId: varchar('person_id', { length: 36 }).notNull(),
    bytes: bigint('bytes', { mode: 'number' }).notNull(),
    at: time('at').notNull(),
    lockedBy: char('locked_by', { length: 36 }),
    lockedUntil: time('locked_until'),
    /** Somebody else waits for the lock: whoever holds it gives it up. */
    isWanted: boolean('is_wanted').notNull().default(false),
  },
  (table) => [index('uploads_person').on(table.personId), index('uploads_at').on(table.at)],
);

/** What became of each finished upload, so that taking it in twice answers the same. */
export const arrivals = mysqlTable('arrivals', {
  uploadId: char('upload_id', { length: 32 }).primaryKey(),
  assetId: varchar('asset_id', { length: 36 })
    .notNull()
    .references(() => assets.id, { onDelete: 'cascade' }),
  /** Who handed it in; null for what came before this was kept. */
  personId: varchar('person_id', { length: 36 }),
  isNew: boolean('is_new').notNull(),
  at: time('at').notNull(),
});

/**
 * Files that nothing names any more, to be removed: a row is locked while its file is, so that one that comes in anew at
 * that moment is stored again afterwards.
 */
export const removals = mysqlTable('removals', {
  key: varchar('key', { length: 400 }).primaryKey(),
  at: time('at').notNull(),
});

/** Work for workers: rows taken with SKIP LOCKED, kept by a lease that is renewed while it runs. */
export const jobs = mysqlTable(
  'jobs',
  {
    id: id().primaryKey(),
    kind: varchar('kind', { length: 30 }).notNull(),
    title: varchar('title', { length: 300 }).notNull(),
    input: storedJson<unknown>('input', STORED.jobInput).notNull(),
    state: varchar('state', { length: 10 }).notNull(),
    stopAsked: boolean('stop_asked').notNull().default(false),
    doneSteps: int('done_steps').notNull().default(0),
    allSteps: int('all_steps').notNull().default(0),
    words: varchar('words', { length: 500 }).notNull().default(''),
    resultKey: varchar('result_key', { length: 200 }),
    resultBytes: bigint('result_bytes', { mode: 'number' }),
    leaseUntil: time('lease_until'),
    /** How often it was taken since it last went forward. */
    attempts: int('attempts').notNull().default(0),
    /** Names the attempt that is being made: what an earlier one still reports is not taken for it. */
    attemptId: char('attempt_id', { length: 36 }),
    createdBy: varchar('created_by', { length: 36 }).notNull(),
    createdAt: time('created_at').notNull(),
  },
  (table) => [
    index('jobs_state').on(table.state, table.createdAt),
    index('jobs_person').on(table.createdBy, table.kind, table.createdAt),
  ],
);
