import { createHmac } from 'node:crypto';
import type { Request } from 'express';
import type { Context } from './context.ts';
import { personOf } from './people/guard.ts';

/**
 * The ID of what a request makes. A request that is sent again after a lost line carries the same `Idempotency-Key`
 * (IETF draft "The Idempotency-Key HTTP Header Field"), and so names the same thing, which is made once: the key is what
 * the database knows it by. Nobody can name another person's.
 */
export function newId({ secret }: Pick<Context, 'secret'>, request: Request): string {
  const key = request.headers['idempotency-key'];
  if (typeof key !== 'string' || key.length < 8) return crypto.randomUUID();
  const named = `${personOf(request).id} ${request.method} ${request.path} ${key.slice(0, 200)}`;
  const hex = createHmac('sha256', secret).update(named).digest('hex');
  // Laid out as RFC 9562, 5.8 ("custom") has it.
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-a${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}
