import { and, asc, eq, isNull } from 'drizzle-orm';
import { type Request, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { people } from '../db/schema.ts';
import { HttpProblem } from '../problem.ts';
import { route } from '../route.ts';
import { begin, isEmptyHouse } from './beginning.ts';
import { changePassword } from './colleagues.ts';
import { personOf, presentPerson, signedIn } from './guard.ts';
import { assertNotGuessed } from './guessing.ts';
import { isPasswordOf } from './passwords.ts';
import { endSession, sessionsOf } from './sessions.ts';

/** From one place, where a whole house may stand behind one address; each account has a limit of its own. */
const TRIES = 100;
const TRIES_MILLIS = 15 * 60 * 1000;

export function peopleRoutes(context: Context): Router {
  const router = Router();
  const limit = rateLimit({
    windowMs: TRIES_MILLIS,
    limit: TRIES,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, _response, next) =>
      next(new HttpProblem(429, 'Too many tries from here. Wait a quarter of an hour and try again.')),
  });

  route(router, 'post /session', limit, async (request, response) => {
    const { email, password } = request.body;
    await assertNotGuessed(context, email, new Date());
    const [person] = await context.db
      .select()
      .from(people)
      .where(and(eq(people.email, email), isNull(people.leftAt)));
    const isRight = await isPasswordOf(person?.passwordHash, password);
    if (!isRight || !person) {
      await writeAudit(context.db, { person: null, what: 'sign-in-refused', subject: email }, new Date());
      throw new HttpProblem(401, 'Address and password do not go together. Check both and try again.');
    }
    if (person.isDemo && !context.config.isDemo)
      throw new HttpProblem(
        403,
        'This is a person of the demo, which is off. Sign in as yourself, or begin a house of your own in an empty database.',
      );
    await signInAs(request, person.id);
    await writeAudit(context.db, { person, what: 'signed-in', subject: email }, new Date());
    response.json(presentPerson(person));
  });

  route(router, 'get /beginning', async (_request, response) => {
    response.json({ isOpen: await isEmptyHouse(context.db) });
  });
  route(router, 'post /beginning', limit, async (request, response) => {
    const person = await begin(context, request.body, new Date());
    await signInAs(request, person.id);
    response.status(201).json(person);
  });

  route(router, 'delete /session', async (request, response) => {
    const { personId } = request.session;
    const [person] = personId ? await context.db.select().from(people).where(eq(people.id, personId)) : [];
    if (person)
      await writeAudit(context.db, { person, what: 'signed-out', subject: person.email }, new Date());
    await new Promise<void>((resolve, reject) =>
      request.session.destroy((error) => (error ? reject(error) : resolve())),
    );
    response.status(204).end();
  });

  route(router, 'get /me', signedIn(context, { evenMustChange: true }), (request, response) => {
    response.json(personOf(request));
  });

  route(
    router,
    'put /me/password',
    limit,
    signedIn(context, { evenMustChange: true }),
    async (request, response) => {
      const change = request.body;
      const person = personOf(request);
      await changePassword(context, person, change, new Date());
      await signInAs(request, person.id);
      response.status(204).end();
    },
  );

  route(router, 'get /me/sessions', signedIn(context), async (request, response) => {
    response.json(await sessionsOf(context, personOf(request).id, request.sessionID, new Date()));
  });
  route(router, 'delete /me/sessions/{key}', signedIn(context), async (request, response) => {
    await endSession(context, personOf(request), request.params.key, new Date());
    response.status(204).end();
  });

  /** In the demo, the sign-in screen offers the made-up people; elsewhere this is empty. */
  route(router, 'get /demo-people', async (_request, response) => {
    if (!context.config.isDemo) {
      response.json([]);
      return;
    }
    const rows = await context.db
      .select({ name: people.name, email: people.email, role: people.role })
      .from(people)
      .where(and(isNull(people.leftAt), eq(people.isDemo, true)))
      .orderBy(asc(people.id));
    response.json(rows);
  });
  return router;
}

/** A fresh session, so that nobody can have known its name before. */
async function signInAs(request: Request, personId: string): Promise<void> {
  await new Promise<void>((resolve, reject) =>
    request.session.regenerate((error) => (error ? reject(error) : resolve())),
  );
  request.session.personId = personId;
  request.session.signedInAt = Date.now();
  request.session.address = (request.ip ?? '').slice(0, 60);
  request.session.agent = (request.headers['user-agent'] ?? '').slice(0, 200);
}
