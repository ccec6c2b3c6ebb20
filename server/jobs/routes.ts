import { Router } from 'express';
import type { Context } from '../context.ts';
import { personOf } from '../people/guard.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { route } from '../route.ts';
import { goOnWithJob, presentJob, readJob, stopJob } from './queue.ts';

const LOOK_MILLIS = 250;
const ENDED = new Set(['done', 'failed', 'stopped']);

export function jobRoutes(context: Context): Router {
  const router = Router();
  const ownJob = async (id: string, personId: string) => {
    const job = await readJob(context, id);
    if (job.createdBy !== personId) throw notFound('This work');
    return job;
  };

  route(router, 'get /jobs/{id}', async (request, response) => {
    response.json(presentJob(await ownJob(request.params.id, personOf(request).id)));
  });

  /** Progress as server-sent events (HTML, "Server-sent events") until the job ends. */
  route(router, 'get /jobs/{id}/events', async (request, response) => {
    const first = await ownJob(request.params.id, personOf(request).id);
    response.set({
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    response.flushHeaders();
    const send = (job: typeof first) => response.write(`data: ${JSON.stringify(presentJob(job))}\n\n`);
    send(first);
    let isOpen = !ENDED.has(first.state);
    request.on('close', () => {
      isOpen = false;
    });
    while (isOpen && !context.ending.aborted) {
      await new Promise((resolve) => setTimeout(resolve, LOOK_MILLIS));
      const job = await readJob(context, first.id);
      if (isOpen) send(job);
      if (ENDED.has(job.state)) break;
    }
    response.end();
  });

  route(router, 'post /jobs/{id}/stop', async (request, response) => {
    const job = await ownJob(request.params.id, personOf(request).id);
    await stopJob(context, job.id);
    response.status(202).json(presentJob(await readJob(context, job.id)));
  });

  /** Lets work go on that was stopped or failed: what is done stays done. A run goes on by its own way. */
  route(router, 'post /jobs/{id}/go-on', async (request, response) => {
    const job = await ownJob(request.params.id, personOf(request).id);
    if (job.kind === 'run') throw new HttpProblem(409, 'A run goes on from its own screen.');
    if (job.state !== 'done') await goOnWithJob(context, job.id);
    response.status(202).json(presentJob(await readJob(context, job.id)));
  });

  route(router, 'get /jobs/{id}/file', async (request, response) => {
    const job = await ownJob(request.params.id, personOf(request).id);
    if (job.state !== 'done' || !job.resultKey)
      throw new HttpProblem(409, 'This work has not ended yet, so there is no file.');
    response.attachment(`${job.title}.zip`).type('zip');
    const stream = await context.storage.stream(job.resultKey);
    stream.on('error', (error) => response.destroy(error));
    stream.pipe(response);
  });
  return router;
}
