import * as v from 'valibot';
import { ProblemSchema } from '#api/problem.ts';

/** A problem that the server answered, or that it could not be reached. `body` is the whole problem document. */
export class ApiProblem extends Error {
  readonly status: number;
  readonly body: unknown;

  constructor(status: number, detail: string, body: unknown, options?: ErrorOptions) {
    super(detail, options);
    this.name = 'ApiProblem';
    this.status = status;
    this.body = body;
  }

  /** Whether trying again later may work without a change. */
  get isPassing(): boolean {
    return this.status === 0 || this.status === 429 || this.status >= 500;
  }
}

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

interface Asked {
  readonly method?: Method;
  readonly body?: unknown;
  /** The version that a write was made on. */
  readonly version?: number;
  readonly signal?: AbortSignal;
}

/** Asks the server and reads its answer into a type. Throws `ApiProblem` with a sentence for people otherwise. */
export async function ask<T extends v.GenericSchema>(
  schema: T,
  path: string,
  asked: Asked = {},
): Promise<v.InferOutput<T>> {
  return v.parse(schema, await send(path, asked));
}

/** As `ask`, for answers without a body. */
export async function tell(path: string, asked: Asked): Promise<void> {
  await send(path, asked);
}

async function send(path: string, { method = 'GET', body, version, signal }: Asked): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(signal ? { signal } : {}),
    });
  } catch (cause) {
    if (signal?.aborted) throw cause;
    throw new ApiProblem(
      0,
      'Placard cannot be reached. What you wrote is kept on this machine and tried again.',
      null,
      { cause },
    );
  }
  const answer = response.status === 204 ? null : await response.json().catch(() => null);
  if (response.ok) return answer;
  const problem = v.safeParse(ProblemSchema, answer);
  throw new ApiProblem(
    response.status,
    problem.success ? problem.output.detail : `Placard answered with ${response.status}.`,
    answer,
  );
}

/** What to say of any failure. */
export function sayFailure(error: unknown): string {
  return error instanceof ApiProblem
    ? error.message
    : 'Something went wrong on this screen. Load it again; what was saved is safe.';
}
