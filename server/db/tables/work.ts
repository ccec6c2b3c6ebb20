import {
  bigint,
  boolean,
  char,
  index,
  int,
  json,
  mysqlTable,
  primaryKey,
  smallint,
  varchar,
} from 'drizzle-orm/mysql-core';
import type { RunRow } from '#core/run/plan.ts';
import { STORED } from '#core/stored.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';

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
