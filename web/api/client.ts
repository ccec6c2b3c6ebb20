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
export async function requestJson<T extends v.GenericSchema>(
  schema: T,
  path: string,
  asked: Asked = {},
): Promise<v.InferOutput<T>> {
  const answer = await send(path, asked);
  const read = v.safeParse(schema, answer);
  if (read.success) return read.output;
  // Answers may gain parts without harm; one that lacks what is read here comes from another Placard than this window.
  throw new ApiProblem(
    RENEWED,
    'Placard was renewed since this window was opened. Load it again; what you wrote is kept on this machine.',
    answer,
    { cause: read.issues },
  );
}

/** As `ask`, for answers without a body. */
export async function requestVoid(path: string, asked: Asked): Promise<void> {
  await send(path, asked);
}

/** No status of HTTP: the answer itself was sound, only not for this window. */
const RENEWED = 1;

const WRITES = new Set<Method>(['POST', 'PUT', 'PATCH', 'DELETE']);
/** Waits before a write is tried again whose answer did not come, in milliseconds. */
const AGAIN_MILLIS = [400, 1200];

/**
 * Sends a request. A write whose answer did not come is sent again under the same key, and the server answers the same
 * where it was carried out already.
 */
async function send(path: string, asked: Asked): Promise<unknown> {
  const isWrite = WRITES.has(asked.method ?? 'GET');
  const key = isWrite ? crypto.randomUUID() : null;
  // Whoever writes on a version knows how it stands, and tries again by itself.
  for (const wait of isWrite && asked.version === undefined ? AGAIN_MILLIS : []) {
    try {
      return await sendOnce(path, asked, key);
    } catch (error) {
      const isLost = error instanceof ApiProblem && (error.status === 0 || error.status === 503);
      if (!isLost) throw error;
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
  return sendOnce(path, asked, key);
}

async function sendOnce(
  path: string,
  { method = 'GET', body, version, signal }: Asked,
  key: string | null,
): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
        ...(key === null ? {} : { 'Idempotency-Key': key }),
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
