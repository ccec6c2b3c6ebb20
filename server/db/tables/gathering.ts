import { bigint, boolean, char, index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import type { FoundPicture } from '#api/gather.ts';
import type { PurchaseState } from '#api/purchases.ts';
import type { Statement } from '#core/gather/statement.ts';
import type { Difference } from '#core/rights/differences.ts';
import type { Offer } from '#core/rights/offer.ts';
import { STORED } from '#core/stored.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';
import { assets, ofAsset } from './pieces.ts';
import { jobs } from './work.ts';

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
