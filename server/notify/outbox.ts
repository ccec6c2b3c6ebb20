import { and, asc, desc, eq, inArray, isNull, lt, lte, ne, notInArray, or } from 'drizzle-orm';
import * as v from 'valibot';
import type { OwnMessages } from '#api/notify.ts';
import { MESSAGE_WAYS, type MessageChoices, type MessageWay, mattersBy } from '#core/notify/choices.ts';
import { dueAt } from '#core/notify/due.ts';
import { type KeyedNotification, NotificationSchema } from '#core/notify/notification.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { messages } from '../db/schema.ts';

export type MessageRow = typeof messages.$inferSelect;

const DAY_MILLIS = 24 * 60 * 60 * 1000;
/** Longer than all that one round waits for. */
const LEASE_MILLIS = 5 * 60 * 1000;
const AT_A_TIME = 200;
const RECENT = 10;

/** Puts down what is new to a person by each way, and lets go of what is so no more: that is not told, or told anew when it comes again. */
export async function putDown(
  { db }: Pick<Context, 'db'>,
  personId: string,
  choices: MessageChoices,
  news: readonly KeyedNotification[],
  now: Date,
): Promise<void> {
  await db.transaction(async (tx) => {
    await letGo(tx, personId, news, now);
    for (const way of MESSAGE_WAYS) {
      const matters = mattersBy(choices, way);
      const told = news.filter(({ matter }) => matters.includes(matter));
      await insertNew(tx, personId, way, told, (matter) => ({
        state: 'waiting',
        at: now,
        dueAt: dueAt(choices, way, matter, now),
      }));
    }
  });
}

/** What was open when a person began to ask for it is on their Desk, and is not told. */
export async function putDownAsKnown(
  { db }: { readonly db: Queries },
  personId: string,
  way: MessageWay,
  news: readonly KeyedNotification[],
  now: Date,
): Promise<void> {
  await insertNew(db, personId, way, news, () => ({ state: 'known', at: now, dueAt: now }));
}

/** What comes and goes is told once a day at most. */
async function letGo(
  db: Queries,
  personId: string,
  news: readonly KeyedNotification[],
  now: Date,
): Promise<void> {
  const aDayAgo = new Date(now.getTime() - DAY_MILLIS);
  const isOpen = news.map(({ key }) => key);
  await db
    .delete(messages)
    .where(
      and(
        eq(messages.personId, personId),
        isOpen.length > 0 ? notInArray(messages.key, isOpen) : undefined,
        or(inArray(messages.state, ['waiting', 'known']), lt(messages.dueAt, aDayAgo)),
        or(isNull(messages.leaseUntil), lt(messages.leaseUntil, now)),
      ),
    );
}

async function insertNew(
  db: Queries,
  personId: string,
  way: MessageWay,
  news: readonly KeyedNotification[],
  how: (matter: KeyedNotification['matter']) => { state: string; at: Date; dueAt: Date },
): Promise<void> {
  if (news.length === 0) return;
  const rows = news.map(({ key, ...notification }) => ({
    id: crypto.randomUUID(),
    personId,
    way,
    matter: notification.matter,
    key: key.slice(0, 160),
    notification,
    ...how(notification.matter),
  }));
  await db.insert(messages).ignore().values(rows);
}

/** What waits by a way is looked for anew, as after the person chose otherwise. */
export async function forgetWaiting({ db }: { readonly db: Queries }, personId: string): Promise<void> {
  await db.delete(messages).where(and(eq(messages.personId, personId), eq(messages.state, 'waiting')));
}

/** Takes what is due, so that no other process tells it too: what goes out together. */
export async function takeDue({ db }: Context, now: Date): Promise<readonly (readonly MessageRow[])[]> {
  return db.transaction(async (tx) => {
    const rows = await tx
      .select()
      .from(messages)
      .where(
        and(
          eq(messages.state, 'waiting'),
          lte(messages.dueAt, now),
          or(isNull(messages.leaseUntil), lt(messages.leaseUntil, now)),
        ),
      )
      .orderBy(asc(messages.dueAt), asc(messages.at), asc(messages.id))
      .limit(AT_A_TIME)
      .for('update', { skipLocked: true });
    if (rows.length === 0) return [];
    const leaseUntil = new Date(now.getTime() + LEASE_MILLIS);
    await tx.update(messages).set({ leaseUntil }).where(idIn(rows));
    return inBatches(tx, rows);
  });
}

/**
 * What goes to one person by one way goes out together. What a killed process may have sent stays together, so that it is
 * known again when it is sent once more.
 */
async function inBatches(
  db: Queries,
  rows: readonly MessageRow[],
): Promise<readonly (readonly MessageRow[])[]> {
  const batches = new Map<string, MessageRow[]>();
  for (const row of rows) {
    const key = row.batch ?? `${wayOf(row)} ${row.personId}`;
    batches.set(key, [...(batches.get(key) ?? []), row]);
  }
  return Promise.all(
    [...batches.values()].map(async (together) => {
      const batch = together[0]?.batch ?? crypto.randomUUID();
      await db.update(messages).set({ batch }).where(idIn(together));
      return together.map((row) => ({ ...row, batch }));
    }),
  );
}

const idIn = (rows: readonly MessageRow[]) =>
  inArray(
    messages.id,
    rows.map(({ id }) => id),
  );

export async function markSent({ db }: Context, rows: readonly MessageRow[], now: Date): Promise<void> {
  await db
    .update(messages)
    .set({ state: 'sent', sentAt: now, leaseUntil: null, words: '' })
    .where(idIn(rows));
}

/** `again` is when it is tried again, or null where it is not. */
export async function markNotSent(
  { db }: Context,
  rows: readonly MessageRow[],
  words: string,
  again: (row: MessageRow) => Date | null,
): Promise<void> {
  for (const row of rows) {
    const dueAgain = again(row);
    await db
      .update(messages)
      .set({
        tries: row.tries + 1,
        leaseUntil: null,
        batch: null,
        words: words.slice(0, 500),
        ...(dueAgain ? { dueAt: dueAgain } : { state: 'failed' }),
      })
      .where(eq(messages.id, row.id));
  }
}

/** What is there for people who left, or who cannot be told any more. */
export async function drop({ db }: Context, rows: readonly MessageRow[]): Promise<void> {
  if (rows.length > 0) await db.delete(messages).where(idIn(rows));
}

/** What a person was told last, or could not be. */
export async function recentMessages({ db }: Context, personId: string): Promise<OwnMessages['recent']> {
  const rows = await db
    .select()
    .from(messages)
    .where(and(eq(messages.personId, personId), ne(messages.state, 'known')))
    .orderBy(desc(messages.at), asc(messages.id))
    .limit(RECENT);
  return rows.flatMap((row) => {
    const read = v.safeParse(NotificationSchema, row.notification);
    if (!read.success) return [];
    const { sentence, path } = read.output;
    const at = (row.sentAt ?? row.dueAt).toISOString();
    return [{ id: row.id, way: wayOf(row), sentence, path, state: stateOf(row.state), at, words: row.words }];
  });
}

export const wayOf = ({ way }: Pick<MessageRow, 'way'>): MessageWay => (way === 'hook' ? 'hook' : 'mail');

const stateOf = (state: string) => (state === 'sent' || state === 'failed' ? state : 'waiting');
