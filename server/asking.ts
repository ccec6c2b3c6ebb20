import type { Request, Response } from 'express';
import { OutboundProblem } from './outbound/problem.ts';
import { Refusal } from './problem.ts';

/** Asks the world outside on behalf of a request, and stops when the one who asked is gone. */
export async function asking<T>(
  request: Request,
  response: Response,
  work: (signal: AbortSignal) => Promise<T>,
): Promise<T> {
  const leaving = new AbortController();
  const leave = () => {
    if (!response.writableEnded) leaving.abort();
  };
  request.on('close', leave);
  response.on('close', leave);
  try {
    return await work(leaving.signal);
  } catch (error) {
    throw asRefusal(error);
  }
}

export function asRefusal(error: unknown): unknown {
  if (!(error instanceof OutboundProblem)) return error;
  const isAsker = ['not-an-address', 'not-web', 'user-info', 'private', 'unknown-host'].includes(error.fault);
  return new Refusal(isAsker ? 422 : 502, error.message, { fault: error.fault }, { cause: error });
}
