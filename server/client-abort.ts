import type { Request, Response } from 'express';
import type { Context } from './context.ts';
import { OutboundProblem } from './outbound/problem.ts';
import { personOf } from './people/guard.ts';
import { HttpProblem } from './problem.ts';

/** Aborts when whoever asked has gone, so that nothing is done for nobody. */
export function clientGoneSignal(response: Response): AbortSignal {
  const leaving = new AbortController();
  const leave = () => {
    if (!response.writableEnded) leaving.abort();
  };
  response.on('close', leave);
  return leaving.signal;
}

/**
 * Asks the world outside on behalf of a request, and stops when the one who asked is gone. Each person has so many such
 * questions at once; the rest of theirs waits.
 */
export async function withClientAbort<T>(
  context: Context,
  request: Request,
  response: Response,
  work: (signal: AbortSignal) => Promise<T>,
): Promise<T> {
  const left = clientGoneSignal(response);
  try {
    return await context.looks(personOf(request).id, async () => {
      left.throwIfAborted();
      return work(left);
    });
  } catch (error) {
    throw fromOutbound(error);
  }
}

export function fromOutbound(error: unknown): unknown {
  if (!(error instanceof OutboundProblem)) return error;
  const isAsker = ['not-an-address', 'not-web', 'user-info', 'private', 'unknown-host'].includes(error.fault);
  return new HttpProblem(isAsker ? 422 : 502, error.message, { fault: error.fault }, { cause: error });
}
