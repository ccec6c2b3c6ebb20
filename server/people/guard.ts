import { eq } from 'drizzle-orm';
import type { Request, RequestHandler } from 'express';
import * as v from 'valibot';
import { DEED_WORDS, type Deed, may, type Person, ROLES } from '#api/people.ts';
import type { Context } from '../context.ts';
import { people } from '../db/schema.ts';
import { Refusal } from '../problem.ts';

declare module 'express-session' {
  interface SessionData {
    personId: string;
    /** When they signed in, in milliseconds since 1970. */
    signedInAt: number;
  }
}

const present = new WeakMap<Request, Person>();
const RoleSchema = v.picklist(ROLES);

/** Lets only signed-in people through. */
export function signedIn(context: Context): RequestHandler {
  return async (request, _response, next) => {
    const personId = request.session.personId;
    if (!personId)
      throw new Refusal(
        401,
        'You are not signed in. Sign in and go on; what you wrote is kept on this machine.',
      );
    const [row] = await context.db.select().from(people).where(eq(people.id, personId));
    const isOver = row?.passwordAt && (request.session.signedInAt ?? 0) < row.passwordAt.getTime();
    if (!row || row.leftAt || isOver)
      throw new Refusal(401, 'This sign-in is no longer known. Sign in again.');
    present.set(request, {
      id: row.id,
      name: row.name,
      email: row.email,
      role: v.parse(RoleSchema, row.role),
    });
    next();
  };
}

/** Who makes the request. Behind `signedIn` there is always somebody. */
export function personOf(request: Request): Person {
  const person = present.get(request);
  if (!person) throw new Error('Asked for the person of a request that is not behind signedIn.');
  return person;
}

/** Lets only those through whose role allows the deed. */
export function allowed(deed: Deed): RequestHandler {
  return (request, _response, next) => {
    assertAllowed(personOf(request), deed);
    next();
  };
}

export function assertAllowed(person: Person, deed: Deed): void {
  if (may(person.role, deed)) return;
  throw new Refusal(
    403,
    `Your role does not let you ${DEED_WORDS[deed]}. Nothing was changed. Ask the site owner.`,
  );
}

const UNSAFE = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/** Refuses writes that come from a page of another origin. */
export function sameOrigin(appOrigin: string): RequestHandler {
  return (request, _response, next) => {
    const from = request.headers.origin;
    if (UNSAFE.has(request.method) && from !== undefined && from !== appOrigin) {
      throw new Refusal(403, 'This request came from a page of another site, so it was not carried out.');
    }
    next();
  };
}
