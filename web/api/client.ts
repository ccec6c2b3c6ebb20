import * as v from 'valibot';
import type { AnswerOf, BodyOf, OperationKey, PathNames, QueryOf, Readable } from '#api/operations.ts';
import { ProblemSchema } from '#api/problem.ts';
import { PROGRESS_LINES, ProgressLineSchema, type Step } from '#api/progress.ts';

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

interface AskedAnyhow {
  /** The version that a write was made on. */
  readonly version?: number;
  readonly signal?: AbortSignal | undefined;
  /** Is told how far work is that takes seconds, where the operation says so on its way. */
  readonly onStep?: ((step: Step) => void) | undefined;
  /** A file that is sent as it is, as the body itself. */
  readonly file?: Blob | undefined;
}

type PathPart<Key extends OperationKey> = Key extends `${string}{${string}`
  ? { readonly path: PathNames<Key> }
  : unknown;
type QueryPart<Key extends OperationKey> = [QueryOf<Key>] extends [never]
  ? unknown
  : { readonly query: Readable<v.InferInput<QueryOf<Key>>> };
type BodyPart<Key extends OperationKey> = [BodyOf<Key>] extends [never]
  ? unknown
  : { readonly body: Readable<v.InferInput<BodyOf<Key>>> };

/** What an operation takes: the names in its path, its query and its body, as its own schemas say. */
type Asked<Key extends OperationKey> = AskedAnyhow & PathPart<Key> & QueryPart<Key> & BodyPart<Key>;
type AskedLast<Key extends OperationKey> =
  object extends Asked<Key> ? [asked?: Asked<Key>] : [asked: Asked<Key>];

/**
 * Asks the server by the key of an operation and reads its answer into a type. Throws `ApiProblem` with a sentence for
 * people otherwise. The schema is that of the operation, handed in so that a screen loads no others.
 */
export async function requestJson<Key extends OperationKey>(
  key: Key,
  schema: AnswerOf<Key>,
  ...[asked]: AskedLast<Key>
): Promise<v.InferOutput<AnswerOf<Key>>> {
  const answer = await send(key, asked ?? {});
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

/** As `requestJson`, for operations whose answer has no body, or is not looked at. */
export async function requestVoid<Key extends OperationKey>(
  key: Key,
  ...[asked]: AskedLast<Key>
): Promise<void> {
  await send(key, asked ?? {});
}

interface Sent extends AskedAnyhow {
  readonly path?: Readonly<Record<string, string>>;
  readonly query?: object;
  readonly body?: unknown;
}

/** No status of HTTP: the answer itself was sound, only not for this window. */
const RENEWED = 1;

/** Waits before a write is tried again whose answer did not come, in milliseconds. */
const AGAIN_MILLIS = [400, 1200];

/**
 * Sends a request. A write whose answer did not come is sent again under the same key, and the server answers the same
 * where it was carried out already.
 */
async function send(operation: OperationKey, asked: Sent): Promise<unknown> {
  const isWrite = !operation.startsWith('get ');
  const key = isWrite ? crypto.randomUUID() : null;
  // Whoever writes on a version knows how it stands, and tries again by itself.
  for (const wait of isWrite && asked.version === undefined ? AGAIN_MILLIS : []) {
    try {
      return await sendOnce(operation, asked, key);
    } catch (error) {
      const isLost = error instanceof ApiProblem && (error.status === 0 || error.status === 503);
      if (!isLost) throw error;
      await new Promise((resolve) => setTimeout(resolve, wait));
    }
  }
  return sendOnce(operation, asked, key);
}

/**
 * Writes under way that go on when their window is closed or led elsewhere: of so many bytes together at most, since the
 * browser refuses what is over 64 KiB (Fetch, 4.6, HTTP-network-or-cache fetch). The others are asked as usual.
 */
const CARRIED_BYTES = 60_000;
let carried = 0;

async function fetched(path: string, init: RequestInit, isWrite: boolean): Promise<Response> {
  const bytes =
    init.body instanceof Blob ? init.body.size : new TextEncoder().encode(String(init.body ?? '')).length;
  if (!isWrite || carried + bytes > CARRIED_BYTES) return fetch(path, init);
  carried += bytes;
  try {
    return await fetch(path, { ...init, keepalive: true });
  } finally {
    carried -= bytes;
  }
}

async function sendOnce(operation: OperationKey, asked: Sent, key: string | null): Promise<unknown> {
  const { body, version, signal, onStep, file } = asked;
  const method = operation.slice(0, operation.indexOf(' ')).toUpperCase();
  let response: Response;
  try {
    const init = {
      method,
      headers: {
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...(file ? { 'Content-Type': 'application/octet-stream' } : {}),
        ...(version === undefined ? {} : { 'If-Match': `"${version}"` }),
        ...(key === null ? {} : { 'Idempotency-Key': key }),
        ...(onStep ? { Accept: `${PROGRESS_LINES}, application/json` } : {}),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
      ...(file ? { body: file } : {}),
      ...(signal ? { signal } : {}),
    };
    response = await fetched(filled(operation, asked), init, key !== null);
    if (onStep && response.body && response.headers.get('content-type')?.startsWith(PROGRESS_LINES))
      return await lastOf(response.body, onStep);
  } catch (cause) {
    if (signal?.aborted || cause instanceof ApiProblem) throw cause;
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

/** The answer at the end of lines of JSON; the lines before say how far it is. */
async function lastOf(body: ReadableStream<Uint8Array>, onStep: (step: Step) => void): Promise<unknown> {
  const decoder = new TextDecoder();
  let rest = '';
  for await (const bytes of body) {
    const lines = (rest + decoder.decode(bytes, { stream: true })).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) {
      const read = v.parse(ProgressLineSchema, JSON.parse(line));
      if ('answer' in read) return read.answer;
      if ('problem' in read) throw new ApiProblem(read.problem.status, read.problem.detail, read.problem);
      onStep(read);
    }
  }
  throw new TypeError('The answer ended before its last line.');
}

/** Where an operation is answered: for files that the browser fetches itself, and for events. */
export function addressOf<Key extends OperationKey>(key: Key, ...[asked]: AskedLast<Key>): string {
  return filled(key, asked ?? {});
}

function filled(key: OperationKey, { path: names = {}, query = {} }: Sent): string {
  const path = key.slice(key.indexOf(' ') + 1);
  const under = path.replace(/\{(\w+)\}/g, (_all, name: string) => encodeURIComponent(names[name] ?? ''));
  const params = new URLSearchParams();
  for (const [name, value] of Object.entries(query))
    if (value !== undefined && value !== '') params.set(name, String(value));
  return `/api${under}${params.size > 0 ? `?${params}` : ''}`;
}

/** What to say of any failure. */
export function sayFailure(error: unknown): string {
  return error instanceof ApiProblem
    ? error.message
    : 'Something went wrong on this screen. Load it again; what was saved is safe.';
}
