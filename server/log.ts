import { DrizzleQueryError } from 'drizzle-orm/errors';
import { type Logger, pino } from 'pino';

/** The log of a process, as lines of JSON. */
export function makeLog(level: string): Logger {
  return pino({ level, serializers: { err: tellError } });
}

interface ToldError {
  readonly type: string;
  readonly message: string;
  readonly code?: string;
  readonly at: readonly string[];
  readonly cause?: ToldError;
}

/**
 * What the log tells of an error and of what caused it. A failed query is told without its values, for they are
 * people's words and the keys of their sessions.
 */
export function tellError(error: unknown): ToldError {
  if (!(error instanceof Error)) return { type: typeof error, message: String(error), at: [] };
  const message = error instanceof DrizzleQueryError ? `Failed query: ${error.query}` : error.message;
  return {
    type: error.name,
    message,
    ...('code' in error && typeof error.code === 'string' ? { code: error.code } : {}),
    at: framesOf(error.stack ?? ''),
    ...(error.cause === undefined ? {} : { cause: tellError(error.cause) }),
  };
}

/** The places of a stack; its head repeats the message. */
function framesOf(stack: string): readonly string[] {
  return stack
    .split('\n')
    .filter((line) => /^\s+at /.test(line))
    .map((line) => line.trim());
}
