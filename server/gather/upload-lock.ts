import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type { Lock, Locker, RequestRelease } from '@tus/server';
import { and, eq, isNull, lt, or } from 'drizzle-orm';
import type { Context } from '../context.ts';
import { uploads } from '../db/schema.ts';

/** A lock that was not renewed for this long is free: its process has ended. */
const LEASE_MILLIS = 10_000;
const RENEW_MILLIS = 1000;
const LOOK_MILLIS = 150;
const WAIT_LIMIT_MILLIS = 20_000;

/** What `@tus/server` answers with. */
class UploadProblem extends Error {
  readonly status_code: number;
  readonly body: string;

  constructor(status: number, sentence: string) {
    super(sentence);
    this.status_code = status;
    this.body = sentence;
  }
}

/** Locks of this process, so that whoever waits here need not wait until the database is looked at. */
const held = new Map<string, RequestRelease>();

/**
 * Locks on uploads that hold across processes, as rows: whoever holds one renews it, and gives it up when another asks
 * (tus 1.0 asks for that, since a line that is half open would hold it for long).
 */
export function uploadLocker({ db }: Pick<Context, 'db'>): Locker {
  return { newLock: (id) => new RowLock(db, id) };
}

class RowLock implements Lock {
  readonly #db: Context['db'];
  readonly #id: string;
  readonly #token = randomUUID();
  #renewing: ReturnType<typeof setInterval> | undefined;

  constructor(db: Context['db'], id: string) {
    this.#db = db;
    this.#id = id;
  }

  async lock(signal: AbortSignal, release: RequestRelease): Promise<void> {
    const until = Date.now() + WAIT_LIMIT_MILLIS;
    while (!(await this.#take())) {
      if (signal.aborted || Date.now() > until)
        throw new UploadProblem(423, 'This file is being sent by another window. It goes on in a moment.');
      await held.get(this.#id)?.();
      await pause(LOOK_MILLIS);
    }
    held.set(this.#id, release);
    this.#renewing = setInterval(() => void this.#renew(release).catch(() => undefined), RENEW_MILLIS);
  }

  async unlock(): Promise<void> {
    clearInterval(this.#renewing);
    held.delete(this.#id);
    await this.#db
      .update(uploads)
      .set({ lockedBy: null, lockedUntil: null, isWanted: false })
      .where(this.#own());
  }

  #own() {
    return and(eq(uploads.id, this.#id), eq(uploads.lockedBy, this.#token));
  }

  async #take(): Promise<boolean> {
    const now = new Date();
    const [taken] = await this.#db
      .update(uploads)
      .set({ lockedBy: this.#token, lockedUntil: new Date(now.getTime() + LEASE_MILLIS), isWanted: false })
      .where(and(eq(uploads.id, this.#id), or(isNull(uploads.lockedBy), lt(uploads.lockedUntil, now))));
    if (taken.affectedRows > 0) return true;
    const [wanted] = await this.#db.update(uploads).set({ isWanted: true }).where(eq(uploads.id, this.#id));
    if (wanted.affectedRows === 0)
      throw new UploadProblem(404, 'This upload is not known here any more. Hand the file in again.');
    return false;
  }

  async #renew(release: RequestRelease): Promise<void> {
    await this.#db
      .update(uploads)
      .set({ lockedUntil: new Date(Date.now() + LEASE_MILLIS) })
      .where(this.#own());
    const [row] = await this.#db.select({ isWanted: uploads.isWanted }).from(uploads).where(this.#own());
    if (!row || row.isWanted) await release();
  }
}
