import {
  bigint,
  boolean,
  char,
  index,
  int,
  json,
  mysqlTable,
  text,
  uniqueIndex,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { HostDecision, HostEntry } from '#core/embed/host.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { HouseLicence } from '#core/rights/house-licence.ts';
import { STORED } from '#core/stored.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';

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
