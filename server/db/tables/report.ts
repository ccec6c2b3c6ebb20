import { char, int, mysqlTable, primaryKey, varchar } from 'drizzle-orm/mysql-core';

/** How the pages of each target stood on each day: what findings they had, and what was out. */
export const reportDays = mysqlTable(
  'report_days',
  {
    /** 2026-11-30, in the time zone of the target. */
    day: char('day', { length: 10 }).notNull(),
    targetId: varchar('target_id', { length: 36 }).notNull(),
    pages: int('pages').notNull(),
    out: int('out').notNull(),
    sent: int('sent').notNull(),
    stops: int('stops').notNull(),
    mends: int('mends').notNull(),
    words: int('words').notNull(),
    rights: int('rights').notNull(),
    /** What a page that is out loads at first, on average; null where none was read back. */
    bytes: int('bytes'),
  },
  (table) => [primaryKey({ columns: [table.day, table.targetId] })],
);
