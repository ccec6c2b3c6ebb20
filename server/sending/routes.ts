import { type Request, Router } from 'express';
import { clientGoneSignal } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { assertMayOrder, presentJob, readJob } from '../jobs/queue.ts';
import { newId } from '../new-id.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { allowed, personOf } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { route } from '../route.ts';
import { credentialSince, forgetCredential, keepCredential } from './credentials.ts';
import { codeOf, listDeliveries, orderDelivery, readDelivery, sayPasted, takeDown } from './deliveries.ts';
import { orderEvidence } from './evidence.ts';
import { foreseePage } from './foreseen.ts';
import { cancelPlan, planOf, planSending } from './plans.ts';
import { learnPasted, probeCode, probeTarget } from './probe.ts';
import { readBack } from './read-back.ts';
import { SendProblem } from './way.ts';

const PROBE_MILLIS = 90_000;

export function sendingRoutes(context: Context): Router {
  const router = Router();

  route(router, 'get /pages/{id}/deliveries', allowed('edit-pages'), async (request, response) => {
    response.json(await withPlan(context, request.params.id, request, request.query.target));
  });

  route(router, 'get /pages/{id}/foreseen', allowed('edit-pages'), async (request, response) => {
    const signal = clientGoneSignal(response);
    const { target } = request.query;
    response.json(await foreseePage(context, request.params.id, personOf(request), signal, target));
  });

  route(router, 'post /pages/{id}/deliveries', allowed('take-away'), async (request, response) => {
    const person = personOf(request);
    await assertMayOrder(context, person.id);
    const id = newId(context, request);
    const { target } = request.query;
    const ordered = await orderDelivery(context, request.params.id, id, person, new Date(), target);
    response.status(202).json(ordered);
  });

  route(router, 'put /pages/{id}/plan', allowed('take-away'), async (request, response) => {
    const { id } = request.params;
    await planSending(context, id, request.body, personOf(request), new Date());
    response.json(await withPlan(context, id, request));
  });

  route(router, 'delete /pages/{id}/plan', allowed('take-away'), async (request, response) => {
    await cancelPlan(context, request.params.id, personOf(request));
    response.json(await withPlan(context, request.params.id, request));
  });

  route(router, 'get /deliveries/{id}', allowed('edit-pages'), async (request, response) => {
    response.json(await readDelivery(context, request.params.id));
  });

  route(router, 'get /deliveries/{id}/code', allowed('take-away'), async (request, response) => {
    response.json(await codeOf(context, request.params.id));
  });

  route(router, 'put /deliveries/{id}/address', allowed('take-away'), async (request, response) => {
    const { id } = request.params;
    await sayPasted(context, id, request.body.address, personOf(request), new Date());
    await readBack(context, id, clientGoneSignal(response));
    response.json(await readDelivery(context, id));
  });

  route(router, 'post /deliveries/{id}/read-back', allowed('take-away'), async (request, response) => {
    const { id } = request.params;
    await readBack(context, id, clientGoneSignal(response));
    response.json(await readDelivery(context, id));
  });

  route(router, 'post /deliveries/{id}/evidence', allowed('take-away'), async (request, response) => {
    const person = personOf(request);
    await assertMayOrder(context, person.id);
    const jobId = await orderEvidence(context, request.params.id, person, new Date());
    response.status(202).json(presentJob(await readJob(context, jobId)));
  });

  route(router, 'post /deliveries/{id}/take-down', allowed('take-away'), async (request, response) => {
    const { id } = request.params;
    const person = personOf(request);
    response.json(await inWords(() => takeDown(context, id, person, new Date(), context.ending)));
  });

  route(router, 'get /targets/{id}/probe', allowed('set-rules'), async (request, response) => {
    const signal = clientGoneSignal(response);
    response.json(await inWords(() => probeCode(context, request.params.id, signal)));
  });

  route(router, 'post /targets/{id}/probe', allowed('set-rules'), async (request, response) => {
    const { id } = request.params;
    const { address } = request.body;
    // Begun, it is taken down again, whoever waits for it.
    const signal = AbortSignal.any([context.ending, AbortSignal.timeout(PROBE_MILLIS)]);
    response.json(
      await inWords(() =>
        address === null ? probeTarget(context, id, signal) : learnPasted(context, id, address, signal),
      ),
    );
  });

  route(router, 'get /targets/{id}/token', allowed('edit-pages'), async (request, response) => {
    const since = await credentialSince(context, request.params.id);
    response.json({ since: since?.toISOString() ?? null });
  });

  route(router, 'put /targets/{id}/token', allowed('set-rules'), async (request, response) => {
    const now = new Date();
    await keepCredential(context, request.params.id, request.body.token, personOf(request), now);
    response.json({ since: now.toISOString() });
  });

  route(router, 'delete /targets/{id}/token', allowed('set-rules'), async (request, response) => {
    await forgetCredential(context, request.params.id, personOf(request), new Date());
    response.status(204).end();
  });
  return router;
}

const withPlan = async (context: Context, pageId: string, request: Request, target?: string) =>
  listDeliveries(context, pageId, personOf(request), await planOf(context, pageId), target);

/** What the other side refused, or could not be asked, as a problem of this request. */
async function inWords<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof SendProblem || error instanceof OutboundProblem)
      throw new HttpProblem(502, error.message, {}, { cause: error });
    throw error;
  }
}
