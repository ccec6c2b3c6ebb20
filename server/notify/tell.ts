import { and, eq, isNull } from 'drizzle-orm';
import * as v from 'valibot';
import { MATTERS, type MessageWay, mattersBy } from '#core/notify/choices.ts';
import { waitAfter } from '#core/notify/due.ts';
import { NotificationSchema } from '#core/notify/notification.ts';
import type { Context } from '../context.ts';
import { messageChoices, people } from '../db/schema.ts';
import { pause } from '../jobs/pause.ts';
import { presentPerson } from '../people/guard.ts';
import { choicesOf, hookSecretOf } from './choices.ts';
import { tellHook } from './hook.ts';
import { sendMail } from './mail.ts';
import { newsFor } from './news.ts';
import { NotTold } from './not-told.ts';
import { drop, type MessageRow, markNotSent, markSent, putDown, takeDue, wayOf } from './outbox.ts';

const EVERY_MILLIS = 5000;
/** Of the time of this process, so much at most goes into looking for what is new: one part in twenty. */
const SHARE = 20;
const LEAST_BETWEEN_MILLIS = 10_000;
/** However long a look took: on a machine that is busy with other things people are told all the same. */
const MOST_BETWEEN_MILLIS = 30_000;

/** Looks for what is new to people who asked to be told, and tells them, until `signal` aborts. */
export async function tellInTime(context: Context, signal: AbortSignal): Promise<void> {
  let lookAt = 0;
  while (!signal.aborted) {
    try {
      const begun = Date.now();
      if (begun >= lookAt) {
        await lookForNews(context, new Date());
        const wait = Math.max(LEAST_BETWEEN_MILLIS, (Date.now() - begun) * SHARE);
        lookAt = Date.now() + Math.min(MOST_BETWEEN_MILLIS, wait);
      }
      await tellDue(context, new Date());
    } catch (error) {
      if (!signal.aborted) context.log.warn({ err: error }, 'people could not be told what is new');
    }
    await pause(EVERY_MILLIS, signal);
  }
}

/** Puts down what is new to everybody who asked to be told. */
export async function lookForNews(context: Context, now: Date): Promise<void> {
  const rows = await context.db
    .select({ person: people })
    .from(messageChoices)
    .innerJoin(people, eq(people.id, messageChoices.personId))
    .where(isNull(people.leftAt));
  for (const row of rows) {
    const person = presentPerson(row.person);
    const choices = await choicesOf(context, person.id);
    const asks = MATTERS.some((matter) =>
      [mattersBy(choices, 'mail'), mattersBy(choices, 'hook')].some((matters) => matters.includes(matter)),
    );
    if (!asks) continue;
    await putDown(context, person.id, choices, await newsFor(context, person, now), now);
  }
}

/** Tells what is due: all by mail to one person in one mail, each by a web hook by itself. */
export async function tellDue(context: Context, now: Date): Promise<void> {
  const batches = await takeDue(context, now);
  await Promise.all(batches.map((rows) => tellOne(context, rows, now)));
}

async function tellOne(context: Context, taken: readonly MessageRow[], now: Date): Promise<void> {
  const [first] = taken;
  if (!first) return;
  const [person] = await context.db
    .select()
    .from(people)
    .where(and(eq(people.id, first.personId), isNull(people.leftAt)));
  if (!person) return drop(context, taken);
  const way = wayOf(first);
  const matters: readonly string[] = mattersBy(await choicesOf(context, person.id), way);
  await drop(
    context,
    taken.filter(({ matter }) => !matters.includes(matter)),
  );
  const rows = taken.filter(({ matter }) => matters.includes(matter));
  if (rows.length === 0) return;
  let left = rows;
  try {
    if (way === 'mail') {
      await sendMail(context, person, rows.map(notificationOf), first.batch ?? first.id);
      await markSent(context, rows, now);
      return;
    }
    for (const row of rows) {
      await tellHook(
        context,
        await hookOf(context, person.id),
        { ...notificationOf(row), id: row.id, at: row.at },
        now,
      );
      await markSent(context, [row], now);
      left = left.filter((one) => one !== row);
    }
  } catch (error) {
    if (!(error instanceof NotTold)) throw error;
    context.log.info({ way, words: error.message }, 'somebody could not be told');
    await markNotSent(context, left, error.message, ({ tries }) => {
      const wait = error.isFinal ? null : waitAfter(tries + 1);
      return wait === null ? null : new Date(now.getTime() + wait);
    });
  }
}

const notificationOf = ({ notification }: MessageRow) => v.parse(NotificationSchema, notification);

/** Where a person's web hooks go, and by what they are signed. Throws NotTold. */
async function hookOf(context: Context, personId: string) {
  const { hook } = await choicesOf(context, personId);
  if (hook.address === '')
    throw new NotTold('No address for web hooks is given any more.', { isFinal: true });
  const secret = await hookSecretOf(context, personId);
  if (secret === null)
    throw new NotTold('What web hooks are signed by cannot be read any more. Make a new secret.', {
      isFinal: true,
    });
  return { address: hook.address, secret };
}

/** Tells a person something at once, so that they see whether a way works. Throws NotTold. */
export async function tryWay(
  context: Context,
  person: { readonly id: string; readonly name: string; readonly email: string },
  way: MessageWay,
  now: Date,
): Promise<void> {
  const id = crypto.randomUUID();
  const trial = {
    matter: 'given' as const,
    sentence: 'This is a trial: Placard tells you things this way.',
    detail: 'Nothing waits for you because of it.',
    path: '/me',
  };
  if (way === 'mail') await sendMail(context, person, [trial], id);
  else await tellHook(context, await hookOf(context, person.id), { ...trial, id, at: now }, now);
}
