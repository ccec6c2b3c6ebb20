import { and, asc, eq, isNull } from 'drizzle-orm';
import { type Request, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { BeginSchema, ChangePasswordSchema, SignInSchema } from '#api/people.ts';
import type { Context } from '../context.ts';
import { people } from '../db/schema.ts';
import { checked, Refusal } from '../problem.ts';
import { begin, isEmptyHouse } from './beginning.ts';
import { changePassword } from './colleagues.ts';
import { personOf, signedIn } from './guard.ts';
import { isPasswordOf } from './passwords.ts';

const TRIES = 20;
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
      next(new Refusal(429, 'Too many tries from here. Wait a quarter of an hour and try again.')),
  });

  router.post('/session', limit, async (request, response) => {
    const { email, password } = checked(SignInSchema, request.body);
    const [person] = await context.db
      .select()
      .from(people)
      .where(and(eq(people.email, email), isNull(people.leftAt)));
    if (!(await isPasswordOf(person?.passwordHash, password)) || !person) {
      throw new Refusal(401, 'Address and password do not go together. Check both and try again.');
    }
    await signInAs(request, person.id);
    response.json({ id: person.id, name: person.name, email: person.email, role: person.role });
  });

  router.get('/beginning', async (_request, response) => {
    response.json({ isOpen: await isEmptyHouse(context.db) });
  });
  router.post('/beginning', limit, async (request, response) => {
    const person = await begin(context, checked(BeginSchema, request.body), new Date());
    await signInAs(request, person.id);
    response.status(201).json(person);
  });

  router.delete('/session', async (request, response) => {
    await new Promise<void>((resolve, reject) =>
      request.session.destroy((error) => (error ? reject(error) : resolve())),
    );
    response.status(204).end();
  });

  router.get('/me', signedIn(context), (request, response) => {
    response.json(personOf(request));
  });

  router.put('/me/password', limit, signedIn(context), async (request, response) => {
    const change = checked(ChangePasswordSchema, request.body);
    const person = personOf(request);
    await changePassword(context, person, change, new Date());
    await signInAs(request, person.id);
    response.status(204).end();
  });

  /** In the demo, the sign-in screen offers the made-up people; elsewhere this is empty. */
  router.get('/demo-people', async (_request, response) => {
    if (!context.config.isDemo) {
      response.json([]);
      return;
    }
    const rows = await context.db
      .select({ name: people.name, email: people.email, role: people.role })
      .from(people)
      .where(isNull(people.leftAt))
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
}
