import { eq } from 'drizzle-orm';
import type { RequestHandler } from 'express';
import { may } from '#api/people.ts';
import type { Context } from '../context.ts';
import { assets } from '../db/schema.ts';
import { personOf } from '../people/guard.ts';
import { notFound } from '../problem.ts';
import { maySee } from './seen.ts';

/** Before everything that is done with one piece: to those who may not see it, it is as if it were not there. */
export function onlySeen({ db }: Context): RequestHandler {
  return async (request, _response, next) => {
    const person = personOf(request);
    if (may(person.role, 'decide-rights')) return next();
    const [row] = await db
      .select({ label: assets.label, createdBy: assets.createdBy })
      .from(assets)
      .where(eq(assets.id, String(request.params.id)));
    if (row && !maySee(row, person)) throw notFound('This piece');
    next();
  };
}
