const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'EPIPE',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
]);

/** Whether an error means that the database does not answer, rather than that it refused something. */
export function isDatabaseGone(error: unknown): boolean {
  return codesOf(error).some((code) => GONE.has(code));
}

export function isDuplicate(error: unknown): boolean {
  return codesOf(error).includes('ER_DUP_ENTRY');
}

export function isDeadlock(error: unknown): boolean {
  return codesOf(error).includes('ER_LOCK_DEADLOCK');
}

/** Drizzle wraps the driver's error as its cause, and a pool may wrap several. */
function codesOf(error: unknown): readonly string[] {
  const codes: string[] = [];
  for (let one = error; one instanceof Error; one = one.cause) {
    if ('code' in one && typeof one.code === 'string') codes.push(one.code);
  }
  return codes;
}
