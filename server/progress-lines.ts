import type { Request, Response } from 'express';
import { PROGRESS_LINES, type Step } from '#api/progress.ts';
import { HttpProblem, problemDetails } from './problem.ts';

/**
 * Does work that may take seconds in one atomic step, and answers with what it gives. Who asks for lines of JSON (the
 * `Accept` of RFC 9110) is told on the way how far it is, one object in each line; whoever else gets the answer alone.
 * A failure before the first step is a problem as ever; one after it stands in the last line.
 */
export async function answerWithProgress<T>(
  request: Request,
  response: Response,
  work: (onStep: (step: Step) => void) => Promise<T>,
): Promise<void> {
  if (request.accepts(['application/json', PROGRESS_LINES]) !== PROGRESS_LINES) {
    response.json(await work(() => {}));
    return;
  }
  const write = (line: object) => response.write(`${JSON.stringify(line)}\n`);
  const onStep = (step: Step) => {
    if (!response.headersSent)
      response.set({
        'Content-Type': PROGRESS_LINES,
        'Cache-Control': 'no-store',
        'X-Accel-Buffering': 'no',
      });
    write(step);
  };
  try {
    const answer = await work(onStep);
    if (response.headersSent) write({ answer });
    else response.json(answer);
  } catch (error) {
    if (!response.headersSent || !(error instanceof HttpProblem)) throw error;
    write({ problem: problemDetails(error) });
  }
  response.end();
}
