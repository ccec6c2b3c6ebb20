import { randomBytes } from 'node:crypto';
import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { type MessageChoices, MessageChoicesSchema, TOLD_NOTHING } from '#core/notify/choices.ts';
import type { Context } from '../context.ts';
import { messageChoices } from '../db/schema.ts';
import { keyFor, maybeUnsealed, sealed } from '../sealed.ts';

const SECRET_BYTES = 32;

const keyOf = ({ secret }: Context, personId: string) =>
  keyFor(secret, { salt: personId, purpose: 'secret of web hooks' });

/** What a person chose to be told; nothing where they chose nothing, or what a later version keeps. */
export async function choicesOf(context: Context, personId: string): Promise<MessageChoices> {
  const row = await rowOf(context, personId);
  const read = v.safeParse(MessageChoicesSchema, row?.choices);
  return read.success ? read.output : TOLD_NOTHING;
}

export async function keepChoices(
  context: Context,
  personId: string,
  choices: MessageChoices,
): Promise<void> {
  await context.db
    .insert(messageChoices)
    .values({ personId, choices })
    .onDuplicateKeyUpdate({ set: { choices } });
}

/** By what a person's web hooks are signed; null before one was made. */
export async function hookSecretOf(context: Context, personId: string): Promise<string | null> {
  const row = await rowOf(context, personId);
  return row?.hookSecret ? maybeUnsealed(keyOf(context, personId), row.hookSecret) : null;
}

/** Makes another secret in place of the one before, and tells it this once. */
export async function makeHookSecret(context: Context, personId: string): Promise<string> {
  const secret = randomBytes(SECRET_BYTES).toString('base64');
  const hookSecret = sealed(keyOf(context, personId), secret);
  await context.db
    .insert(messageChoices)
    .values({ personId, choices: TOLD_NOTHING, hookSecret })
    .onDuplicateKeyUpdate({ set: { hookSecret } });
  return secret;
}

async function rowOf({ db }: Context, personId: string) {
  const [row] = await db.select().from(messageChoices).where(eq(messageChoices.personId, personId));
  return row;
}
