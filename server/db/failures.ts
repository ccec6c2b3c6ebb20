const GONE = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ETIMEDOUT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'PROTOCOL_ENQUEUE_AFTER_QUIT',
  'EPIPE',
  'ER_SERVER_SHUTDOWN',
  'ER_NORMAL_SHUTDOWN',
  'ER_NEW_ABORTING_CONNECTION',
  'ER_CONNECTION_KILLED',
  'ER_QUERY_INTERRUPTED',
]);

const BUSY = new Set(['ER_CON_COUNT_ERROR', 'ER_USER_LIMIT_REACHED', 'PLACARD_BUSY', 'ER_LOCK_WAIT_TIMEOUT']);

/** No connection was free in time. Nothing was asked of the database. */
export class DatabaseBusy extends Error {
  readonly code = 'PLACARD_BUSY';

  constructor() {
    super('No connection to the database was free in time.');
    this.name = 'DatabaseBusy';
  }
}

/**
 * Whether an error means that the database does not answer, rather than that it refused something. Errors of other
 * places (a bucket, a far host) may carry the same codes, so one has to come from the driver.
 */
export function isDatabaseGone(error: unknown): boolean {
  return chain(error).some(
    (one) =>
      isOfDriver(one) &&
      (GONE.has(codeOf(one)) || one.fatal === true || /connection is in closed state/i.test(one.message)),
  );
}

/** Whether an error means that the database has no room for another question just now. */
export function isDatabaseBusy(error: unknown): boolean {
  return chain(error).some(
    (one) => BUSY.has(codeOf(one)) || one.message === 'Queue limit reached.' || isDeadlock(one),
  );
}

export function isDuplicate(error: unknown): boolean {
  return chain(error).some((one) => codeOf(one) === 'ER_DUP_ENTRY');
}

/** A deadlock, or on a cluster a change that another node made first (Galera, certification failure). */
export function isDeadlock(error: unknown): boolean {
  return chain(error).some((one) => codeOf(one) === 'ER_LOCK_DEADLOCK' || codeOf(one) === 'ER_CHECKREAD');
}

type Told = Error & { readonly fatal?: unknown };

/** Drizzle wraps the driver's error as its cause, and a pool may wrap several. */
function chain(error: unknown): readonly Told[] {
  const found: Told[] = [];
  for (let one = error; one instanceof Error && found.length < 10; one = one.cause) found.push(one);
  return found;
}

function codeOf(error: Error): string {
  return 'code' in error && typeof error.code === 'string' ? error.code : '';
}

/** The driver's own errors are made in its files; drizzle's wrapper has them as its cause. */
function isOfDriver(error: Told): boolean {
  return 'sqlState' in error || 'fatal' in error || /[\\/](mysql2|drizzle-orm)[\\/]/.test(error.stack ?? '');
}
