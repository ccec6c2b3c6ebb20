import { char, index, int, mediumtext, mysqlTable, primaryKey, text, varchar } from 'drizzle-orm/mysql-core';
import type { Difference } from '#core/deliver/compare.ts';
import type { Listed } from '#core/deliver/listing.ts';
import { STORED } from '#core/stored.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';
import { pages } from './pages.ts';

export type Teaser = Pick<Listed, 'summary' | 'photo'>;

/** Each sending of a page to a target, and what was found when it was read back. */
export const deliveries = mysqlTable(
  'deliveries',
  {
    id: id().primaryKey(),
    pageId: varchar('page_id', { length: 36 })
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    targetId: varchar('target_id', { length: 36 }).notNull(),
    personId: varchar('person_id', { length: 36 }).notNull(),
    at: time('at').notNull(),
    /**
     * How far it is: its files are sent, then the page was handed over, it is out, and taken down again. One that is pasted by hand
     * is ready before it is out.
     */
    state: varchar('state', { length: 10 }).notNull(),
    /** What the page is called there. */
    title: varchar('title', { length: 300 }).notNull(),
    /** Where it stands, once the target has said so. */
    address: varchar('address', { length: 2000 }),
    /** The HTML that was sent, without the title; null before it is written. */
    html: mediumtext('html'),
    /** The document that its address answered, when it was last read back. */
    found: mediumtext('found'),
    foundAt: time('found_at'),
    /** When its address was last asked, whatever came of it. */
    askedAt: time('asked_at'),
    compared: storedJson<readonly Difference[]>('compared', STORED.compared),
    /** How many of its pictures answered, of how many. */
    answered: varchar('answered', { length: 20 }).notNull().default(''),
    /** What was sent for listings; null before it is written. */
    teaser: storedJson<Teaser>('teaser', STORED.teaser),
    /** What of it loads at first there, in bytes, as far as its files say how large they are. */
    foundBytes: int('found_bytes'),
    /** Why it is not out, or not read back. */
    words: varchar('words', { length: 500 }).notNull().default(''),
    jobId: char('job_id', { length: 36 }).notNull(),
  },
  (table) => [
    index('deliveries_page').on(table.pageId, table.at),
    index('deliveries_out').on(table.state, table.askedAt),
  ],
);

/** Files that a site has already, by their content and name: none is sent twice. */
export const sentFiles = mysqlTable(
  'sent_files',
  {
    /** The way and the address by which they came there: a target that moves has none of them yet. */
    place: varchar('place', { length: 300 }).notNull(),
    sha256: char('sha256', { length: 64 }).notNull(),
    name: varchar('name', { length: 200 }).notNull(),
    address: varchar('address', { length: 2000 }).notNull(),
    at: time('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.place, table.sha256, table.name] })],
);

/** Files of pages that were pasted elsewhere, which readers are served from here under addresses that never change. */
export const publicFiles = mysqlTable(
  'public_files',
  {
    /** The beginning of its hash, by which it is asked for. */
    tag: char('tag', { length: 24 }).notNull(),
    name: varchar('name', { length: 200 }).notNull(),
    sha256: char('sha256', { length: 64 }).notNull(),
    type: varchar('type', { length: 100 }).notNull(),
    bytes: int('bytes').notNull(),
    at: time('at').notNull(),
    /** Since when no page shows it any more; null while it is served. */
    goneAt: time('gone_at'),
  },
  (table) => [primaryKey({ columns: [table.tag, table.name] }), index('public_files_hash').on(table.sha256)],
);

/** Which of them each sending shows. */
export const publicUses = mysqlTable(
  'public_uses',
  {
    deliveryId: char('delivery_id', { length: 36 })
      .notNull()
      .references(() => deliveries.id, { onDelete: 'cascade' }),
    tag: char('tag', { length: 24 }).notNull(),
    name: varchar('name', { length: 200 }).notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.deliveryId, table.tag, table.name] }),
    index('public_uses_file').on(table.tag, table.name),
  ],
);

/** What opens a target to the house, sealed (AES-256-GCM): never shown again, never logged. */
export const credentials = mysqlTable('credentials', {
  targetId: varchar('target_id', { length: 36 }).primaryKey(),
  sealed: text('sealed').notNull(),
  at: time('at').notNull(),
  personId: varchar('person_id', { length: 36 }).notNull(),
});

/** A page that was sent to learn what a target keeps, until it is taken down again. */
export const probes = mysqlTable('probes', {
  targetId: varchar('target_id', { length: 36 }).primaryKey(),
  address: varchar('address', { length: 2000 }).notNull(),
  at: time('at').notNull(),
});

/** When a page goes out by itself, and is taken down again: one plan for each page. */
export const sendingPlans = mysqlTable(
  'sending_plans',
  {
    pageId: varchar('page_id', { length: 36 })
      .primaryKey()
      .references(() => pages.id, { onDelete: 'cascade' }),
    personId: varchar('person_id', { length: 36 }).notNull(),
    at: time('at').notNull(),
    /** Null where it goes out by hand. */
    startAt: time('start_at'),
    /** Null where it stays. */
    endAt: time('end_at'),
    /** How far it is: it waits to go out, it is out and waits to be taken down, it is done. */
    state: varchar('state', { length: 10 }).notNull(),
    /** The sending that it begins, so that it begins one alone. */
    deliveryId: char('delivery_id', { length: 36 }).notNull(),
    /** Why it was not sent or taken down. */
    words: varchar('words', { length: 500 }).notNull().default(''),
  },
  (table) => [
    index('sending_plans_start').on(table.state, table.startAt),
    index('sending_plans_end').on(table.state, table.endAt),
  ],
);
