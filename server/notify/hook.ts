import { createHash } from 'node:crypto';
import type { Notification } from '#core/notify/notification.ts';
import type { Context } from '../context.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { NotTold } from './not-told.ts';
import { contentDigest, signatureHeaders } from './signature.ts';

const LIMITS = { bytes: 16_000, millis: 10_000 };
const TYPE = 'application/json';

interface Hook {
  readonly address: string;
  /** In base64, as whoever listens has it. */
  readonly secret: string;
}

/** Which secret a hook is signed by, so that whoever listens can tell an older one from a newer one. */
export const keyIdOf = (secret: string): string =>
  createHash('sha256').update(secret).digest('hex').slice(0, 16);

/**
 * Tells a web hook one thing: JSON by POST, signed (RFC 9421) over where it goes and what it says. Throws NotTold. No redirect is
 * followed, and no place of a house’s own network is told anything.
 */
export async function tellHook(
  { outbound, config }: Pick<Context, 'outbound' | 'config'>,
  { address, secret }: Hook,
  { id, at, ...notification }: Notification & { readonly id: string; readonly at: Date },
  now: Date,
): Promise<void> {
  const { path, ...said } = notification;
  const told = { version: 1, id, at: at.toISOString(), ...said, address: `${config.appOrigin}${path}` };
  const body = Buffer.from(JSON.stringify(told));
  const digest = contentDigest(body);
  const target = new URL(address).href;
  const signed = signatureHeaders(
    Buffer.from(secret, 'base64'),
    [
      ['@method', 'POST'],
      ['@target-uri', target],
      ['content-digest', digest],
      ['content-type', TYPE],
    ],
    { keyId: keyIdOf(secret), created: Math.floor(now.getTime() / 1000), nonce: id },
  );
  const headers = { 'content-digest': digest, ...signed };
  const answer = await outbound
    .tell(target, { method: 'POST', type: TYPE, body, headers }, { limits: LIMITS })
    .catch((error: unknown) => {
      if (!(error instanceof OutboundProblem)) throw error;
      throw new NotTold(error.message, { isFinal: !error.isPassing, cause: error });
    });
  if (answer.status >= 200 && answer.status < 300) return;
  const { hostname } = new URL(target);
  throw new NotTold(
    answer.status >= 300 && answer.status < 400
      ? `${hostname} sends web hooks on to another address. Give that one: what is told here is told to nobody else.`
      : `${hostname} answered ${answer.status} to the web hook.`,
    { isFinal: answer.status === 410 },
  );
}
