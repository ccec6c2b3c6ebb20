import { index, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';
import type { PageDoc } from '#core/page/model.ts';
import { STORED } from '#core/stored.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';
import { people, targets } from './house.ts';

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
