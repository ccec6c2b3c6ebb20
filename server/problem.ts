import { STATUS_CODES } from 'node:http';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import * as v from 'valibot';
import { isDatabaseBusy, isDatabaseGone } from './db/failures.ts';
import { ForeignProblem, sayForeignFault } from './foreign/problem.ts';
import { isStorageGone } from './storage/failures.ts';

/** A failure that a person can act on. `detail` says what is wrong, what was kept and what to do. */
export class HttpProblem extends Error {
  readonly status: number;
  readonly more: Readonly<Record<string, unknown>>;

  constructor(
    status: number,
    detail: string,
    more: Readonly<Record<string, unknown>> = {},
    options?: ErrorOptions,
  ) {
    super(detail, options);
    this.name = 'HttpProblem';
    this.status = status;
    this.more = more;
  }
}

export const notFound = (what: string) =>
  new HttpProblem(404, `${what} is not here. It may have been moved or thrown away.`);

/** The request's body, checked; an HttpProblem with the first fault's sentence otherwise. */
export function checked<T extends v.GenericSchema>(schema: T, input: unknown): v.InferOutput<T> {
  const result = v.safeParse(schema, input);
  if (result.success) return result.output;
  const [first] = result.issues;
  const where = first ? v.getDotPath(first) : null;
  throw new HttpProblem(
    422,
    `${where ? `“${where}”: ` : ''}${first?.message ?? 'It does not fit.'} Nothing was changed.`,
    {
      issues: result.issues
        .slice(0, 10)
        .map((issue) => ({ path: v.getDotPath(issue), message: issue.message })),
    },
  );
}

export const answerNotFound: RequestHandler = (_request, _response, next) => next(notFound('This address'));

/** Answers every failure as RFC 9457 problem details. */
export function answerProblems(log: Logger): ErrorRequestHandler {
  return (error, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const refusal = asHttpProblem(error);
    // A fault of the world outside (502) is told to the person, and is none of ours.
    if (refusal.status >= 500 && refusal.status !== 502)
      log.error({ err: error, method: request.method, path: request.path }, 'request failed');
    const { retryAfterSeconds } = refusal.more;
    if (typeof retryAfterSeconds === 'number') response.set('Retry-After', String(retryAfterSeconds));
    response
      .status(refusal.status)
      .type('application/problem+json')
      .send(JSON.stringify(problemDetails(refusal)));
  };
}

/** A failure as RFC 9457 writes it. */
export const problemDetails = ({ status, message, more }: HttpProblem) => ({
  type: 'about:blank',
  title: STATUS_CODES[status] ?? 'Problem',
  status,
  detail: message,
  ...more,
});

/** RFC 9110, 10.2.3. */
const COME_AGAIN = { retryAfterSeconds: 2 };

/** Any failure as what is answered. */
export function asHttpProblem(error: unknown): HttpProblem {
  if (error instanceof HttpProblem) return error;
  if (error instanceof ForeignProblem) {
    return new HttpProblem(
      422,
      `This ${sayForeignFault(error.fault)}. Nothing was changed.`,
      {},
      { cause: error },
    );
  }
  if (isDatabaseGone(error)) {
    return new HttpProblem(
      503,
      'The database does not answer. Nothing was lost; it is tried again by itself.',
      COME_AGAIN,
      { cause: error },
    );
  }
  if (isDatabaseBusy(error)) {
    return new HttpProblem(
      503,
      'Too much is asked of Placard just now. Nothing was changed; it is tried again by itself.',
      COME_AGAIN,
      { cause: error },
    );
  }
  if (isStorageGone(error)) {
    return new HttpProblem(
      503,
      'The store of files does not answer. What was handed in is kept; it is tried again by itself.',
      COME_AGAIN,
      { cause: error },
    );
  }
  if (isNoSpace(error)) {
    return new HttpProblem(
      507,
      'There is no room left to store files. Nothing half-written stays behind; make room and try again.',
      {},
      { cause: error },
    );
  }
  if (isBodyFault(error))
    return new HttpProblem(
      error.status,
      'The request could not be read. Nothing was changed.',
      {},
      { cause: error },
    );
  return new HttpProblem(
    500,
    'Something went wrong here. Nothing was changed; it has been written to the log.',
    {},
    { cause: error },
  );
}

/** Whether an error means that there is no room left to store files. */
export function isNoSpace(error: unknown): boolean {
  return (
    error instanceof Error &&
    'code' in error &&
    (error.code === 'ENOSPC' || error.code === 'EDQUOT' || error.code === 'EFBIG')
  );
}

function isBodyFault(error: unknown): error is Error & { status: number } {
  return (
    error instanceof Error &&
    'status' in error &&
    typeof error.status === 'number' &&
    error.status >= 400 &&
    error.status < 500
  );
}
