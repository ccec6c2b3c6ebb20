import { eq } from 'drizzle-orm';
import type { Request, RequestHandler } from 'express';
import * as v from 'valibot';
import { may, PERMISSION_WORDS, type Permission, type Person, ROLES } from '#api/people.ts';
import type { Context } from '../context.ts';
import { people } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';
import { markSeen } from './sessions.ts';

declare module 'express-session' {
  interface SessionData {
    personId: string;
    /** When they signed in, in milliseconds since 1970. */
    signedInAt: number;
    /** From where and with what. */
    address: string;
    agent: string;
  }
}

const present = new WeakMap<Request, Person>();
const RoleSchema = v.picklist(ROLES);

/**
 * Lets only signed-in people through. Those whose password was handed to them take one of their own first, which alone
 * is let through with `evenMustChange`.
 */
export function signedIn(context: Context, { evenMustChange = false } = {}): RequestHandler {
  return async (request, _response, next) => {
    const personId = request.session.personId;
    if (!personId)
      throw new HttpProblem(
        401,
        'You are not signed in. Sign in and go on; what you wrote is kept on this machine.',
      );
    const [row] = await context.db.select().from(people).where(eq(people.id, personId));
    const isOver = row?.passwordAt && (request.session.signedInAt ?? 0) < row.passwordAt.getTime();
    if (!row || row.leftAt || isOver || (row.isDemo && !context.config.isDemo))
      throw new HttpProblem(401, 'This sign-in is no longer known. Sign in again.');
    if (row.mustChange && !evenMustChange)
      throw new HttpProblem(
        403,
        'Your password was made for you. Take one of your own first; nothing was changed.',
        { mustChange: true },
      );
    present.set(request, presentPerson(row));
    if (isTimeToMark(request.sessionID)) await markSeen(context, request.sessionID, new Date());
    next();
  };
}

const MARK_MILLIS = 60_000;
const marked = new Map<string, number>();

/** Whether this process has not written down for a while that a sign-in is used. */
function isTimeToMark(id: string, now = Date.now()): boolean {
  if (now - (marked.get(id) ?? 0) < MARK_MILLIS) return false;
  if (marked.size > 1000) marked.clear();
  marked.set(id, now);
  return true;
}

export function presentPerson({ id, name, email, role, mustChange }: typeof people.$inferSelect): Person {
  return { id, name, email, role: v.parse(RoleSchema, role), mustChange };
}

/** Who makes the request. Behind `signedIn` there is always somebody. */
export function personOf(request: Request): Person {
  const person = present.get(request);
  if (!person) throw new Error('Asked for the person of a request that is not behind signedIn.');
  return person;
}

/** Lets only those through whose role allows the deed. */
export function allowed(deed: Permission): RequestHandler {
  return (request, _response, next) => {
    assertAllowed(personOf(request), deed);
    next();
  };
}

export function assertAllowed(person: Person, deed: Permission): void {
  if (may(person.role, deed)) return;
  throw new HttpProblem(
    403,
    `Your role does not let you ${PERMISSION_WORDS[deed]}. Nothing was changed. Ask the site owner.`,
  );
}

const UNSAFE = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/** Refuses writes that come from a page of another origin. */
export function sameOrigin(appOrigin: string): RequestHandler {
  return (request, _response, next) => {
    const from = request.headers.origin;
    if (UNSAFE.has(request.method) && from !== undefined && from !== appOrigin) {
      throw new HttpProblem(403, 'This request came from a page of another site, so it was not carried out.');
    }
    next();
  };
}
