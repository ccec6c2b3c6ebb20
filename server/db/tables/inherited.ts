import { char, index, int, mediumtext, mysqlTable, varchar } from 'drizzle-orm/mysql-core';
import type { InheritedFacts } from '#core/inherited/facts.ts';
import type { Inherited } from '#core/inherited/reading.ts';
import type { Wishes } from '#core/inherited/to-page.ts';
import { STORED } from '#core/stored.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';

/** What is known of the files and links of an inherited page, and where each of its files is fetched. */
export interface StoredFacts extends InheritedFacts {
  readonly where: readonly string[];
}

/** What was taken in of an inherited page so far, by the places in its lists; those that came new are taken back with it. */
export interface StoredBecame {
  readonly wishes: Wishes;
  /** Whether whoever brings it in says that the pictures of which nobody says whose they are belong to the house. */
  readonly isOurs: boolean;
  /** When it was ordered: what was made since by whoever ordered it came with it. */
  readonly since: string;
  readonly files: Readonly<Record<string, string | null>>;
  readonly embeds: Readonly<Record<string, string | null>>;
  readonly documents: Readonly<Record<string, string | null>>;
  readonly fresh: readonly string[];
}

/** Pages that somebody else made, as they stood when they were read, and what became of each. */
export const inheritedPages = mysqlTable(
  'inherited_pages',
  {
    id: id().primaryKey(),
    targetId: varchar('target_id', { length: 36 }).notNull(),
    personId: varchar('person_id', { length: 36 }).notNull(),
    at: time('at').notNull(),
    /** How far it is: it is read, it was read, it comes in, it is in, it was taken back. */
    state: varchar('state', { length: 10 }).notNull(),
    /** Where it comes from, as people call it: its address, or the name of its file. */
    source: varchar('source', { length: 2000 }).notNull(),
    /** Where it is fetched; null for what was handed in. */
    address: varchar('address', { length: 2000 }),
    /** The address that what it names is read from. */
    base: varchar('base', { length: 2000 }).notNull(),
    /** The document as it stood; null before it came. */
    html: mediumtext('html'),
    /** Bytes of the page with its pictures, as it loads there. */
    bytes: int('bytes', { unsigned: true }),
    /** The encoding that it is in without saying so; the empty text where it says it. */
    encoding: varchar('encoding', { length: 40 }).notNull().default(''),
    /** Where the pictures of its ZIP are kept, by their paths in it; null for none. */
    beside: storedJson<Readonly<Record<string, string>>>('beside', STORED.inheritedBeside),
    reading: storedJson<Inherited>('reading', STORED.inherited),
    facts: storedJson<StoredFacts>('facts', STORED.inheritedFacts),
    became: storedJson<StoredBecame>('became', STORED.inheritedBecame),
    pageId: char('page_id', { length: 36 }),
    /** The version of the page when it was in: changed since, it is not taken back. */
    pageVersion: int('page_version', { unsigned: true }),
    /** Why it could not be read or brought in. */
    words: varchar('words', { length: 500 }).notNull().default(''),
    jobId: char('job_id', { length: 36 }).notNull(),
  },
  (table) => [index('inherited_at').on(table.at)],
);
