import { asc, eq } from 'drizzle-orm';
import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { SignInSchema } from '#api/people.ts';
import type { Context } from '../context.ts';
import { people } from '../db/schema.ts';
import { checked, Refusal } from '../problem.ts';
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
    const [person] = await context.db.select().from(people).where(eq(people.email, email.toLowerCase()));
    if (!(await isPasswordOf(person?.passwordHash, password)) || !person) {
      throw new Refusal(401, 'Address and password do not go together. Check both and try again.');
    }
    await new Promise<void>((resolve, reject) =>
      request.session.regenerate((error) => (error ? reject(error) : resolve())),
    );
    request.session.personId = person.id;
    response.json({ id: person.id, name: person.name, email: person.email, role: person.role });
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

  /** In the demo, the sign-in screen offers the made-up people; elsewhere this is empty. */
  router.get('/demo-people', async (_request, response) => {
    if (!context.config.isDemo) {
      response.json([]);
      return;
    }
    const rows = await context.db
      .select({ name: people.name, email: people.email, role: people.role })
      .from(people)
      .orderBy(asc(people.id));
    response.json(rows);
  });
  return router;
}
