import { index, int, mysqlTable, text, uniqueIndex, varchar } from 'drizzle-orm/mysql-core';
import type { MessageChoices } from '#core/notify/choices.ts';
import type { Notification } from '#core/notify/notification.ts';
import { STORED } from '#core/stored.ts';
import { storedJson } from '../stored-json.ts';
import { id, time } from './columns.ts';
import { people } from './house.ts';

/** What a person chose to be told, and by what their web hooks are signed. */
export const messageChoices = mysqlTable('message_choices', {
  personId: varchar('person_id', { length: 36 })
    .primaryKey()
    .references(() => people.id, { onDelete: 'cascade' }),
  choices: storedJson<MessageChoices>('choices', STORED.messageChoices).notNull(),
  /** Sealed (AES-256-GCM): shown once, when it was made. Null where no web hook was ever asked for. */
  hookSecret: text('hook_secret'),
});

/** What each person is told, by each way: once, however often it is looked for. */
export const messages = mysqlTable(
  'messages',
  {
    id: id().primaryKey(),
    personId: varchar('person_id', { length: 36 })
      .notNull()
      .references(() => people.id, { onDelete: 'cascade' }),
    way: varchar('way', { length: 10 }).notNull(),
    matter: varchar('matter', { length: 10 }).notNull(),
    /** Which matter it is, so that it is known again. */
    key: varchar('key', { length: 160 }).notNull(),
    notification: storedJson<Notification>('notification', STORED.notification).notNull(),
    at: time('at').notNull(),
    /** `known` before it was asked to be told; then `waiting`, `sent` or `failed`. */
    state: varchar('state', { length: 10 }).notNull(),
    dueAt: time('due_at').notNull(),
    sentAt: time('sent_at'),
    tries: int('tries').notNull().default(0),
    /** What goes out in one mail, also after a process was killed over it. */
    batch: varchar('batch', { length: 36 }),
    /** Until when one process is telling it, so that no other does. */
    leaseUntil: time('lease_until'),
    /** Why it could not be told. */
    words: varchar('words', { length: 500 }).notNull().default(''),
  },
  (table) => [
    uniqueIndex('messages_key').on(table.personId, table.way, table.key),
    index('messages_due').on(table.state, table.dueAt),
  ],
);
