import { type Request, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { MESSAGE_WAYS, type MessageChoices, mattersBy } from '#core/notify/choices.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { personOf } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { route } from '../route.ts';
import { choicesOf, hookSecretOf, keepChoices, makeHookSecret } from './choices.ts';
import { newsFor } from './news.ts';
import { NotTold } from './not-told.ts';
import { forgetWaiting, putDownAsKnown, recentMessages } from './outbox.ts';
import { tryWay } from './tell.ts';

const TRIALS = 10;
const TRIAL_MILLIS = 60 * 60 * 1000;

/** What a person is told, and by which ways: each for themselves. */
export function notifyRoutes(context: Context): Router {
  const router = Router();
  const limit = rateLimit({
    windowMs: TRIAL_MILLIS,
    limit: TRIALS,
    keyGenerator: (request: Request) => personOf(request).id,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: (_request, _response, next) =>
      next(new HttpProblem(429, 'That was tried ten times within an hour. Try again later.')),
  });
  const ownMessages = async (personId: string) => ({
    choices: await choicesOf(context, personId),
    canMail: context.config.mail !== null,
    hasHookSecret: (await hookSecretOf(context, personId)) !== null,
    recent: await recentMessages(context, personId),
  });

  route(router, 'get /me/messages', async (request, response) => {
    response.json(await ownMessages(personOf(request).id));
  });
  route(router, 'put /me/messages', async (request, response) => {
    const person = personOf(request);
    const [before, after, now] = [await choicesOf(context, person.id), request.body, new Date()];
    const begun = MESSAGE_WAYS.map((way) => [way, begins(before, after, way)] as const);
    const news = begun.some(([, matters]) => matters.length > 0) ? await newsFor(context, person, now) : [];
    for (const [way, matters] of begun)
      await putDownAsKnown(
        context,
        person.id,
        way,
        news.filter(({ matter }) => matters.includes(matter)),
        now,
      );
    await keepChoices(context, person.id, after);
    await forgetWaiting(context, person.id);
    response.json(await ownMessages(person.id));
  });
  route(router, 'post /me/messages/secret', async (request, response) => {
    const person = personOf(request);
    const secret = await makeHookSecret(context, person.id);
    await writeAudit(context.db, { person, what: 'hook-secret', subject: person.email }, new Date());
    response.json({ secret });
  });
  route(router, 'post /me/messages/trial', limit, async (request, response) => {
    try {
      await tryWay(context, personOf(request), request.body.way, new Date());
    } catch (error) {
      if (!(error instanceof NotTold)) throw error;
      throw new HttpProblem(409, error.message);
    }
    response.status(204).end();
  });
  return router;
}

/** What is told by a way from now on and was not before. */
function begins(before: MessageChoices, after: MessageChoices, way: (typeof MESSAGE_WAYS)[number]) {
  const told = mattersBy(before, way);
  return mattersBy(after, way).filter((matter) => !told.includes(matter));
}
