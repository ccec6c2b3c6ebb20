import pLimit from 'p-limit';

/**
 * Works all of `items`, at most `limit` at once and in their order. When one fails, no other is begun, those under way
 * are waited for, and then the first failure is thrown: nothing goes on behind the back of who asked.
 */
export async function eachAtMost<T>(
  limit: number,
  items: readonly T[],
  work: (item: T) => Promise<void>,
): Promise<void> {
  const left = [...items];
  const failures: unknown[] = [];
  const lane = async () => {
    for (;;) {
      const item = failures.length === 0 ? left.shift() : undefined;
      if (item === undefined) return;
      await work(item).catch((error: unknown) => failures.push(error));
    }
  };
  await Promise.all(Array.from({ length: limit }, lane));
  if (failures.length > 0) throw failures[0];
}

/**
 * Work that several ask for at once and that is done once. It is told to end when none of them waits any more; one who
 * gives no signal waits to the end.
 */
export class SharedWork<T> {
  readonly #underWay = new Map<string, { readonly result: Promise<T>; readonly waiters: Waiters }>();

  async do(
    key: string,
    signal: AbortSignal | undefined,
    work: (signal: AbortSignal) => Promise<T>,
  ): Promise<T> {
    signal?.throwIfAborted();
    const known = this.#underWay.get(key);
    if (known && !known.waiters.signal.aborted) {
      known.waiters.join(signal);
      return known.result;
    }
    const waiters = new Waiters();
    waiters.join(signal);
    const result = work(waiters.signal).finally(() => {
      waiters.end();
      if (this.#underWay.get(key)?.waiters === waiters) this.#underWay.delete(key);
    });
    this.#underWay.set(key, { result, waiters });
    return result;
  }
}

class Waiters {
  readonly #leaving = new AbortController();
  readonly #ends: (() => void)[] = [];
  #count = 0;

  get signal(): AbortSignal {
    return this.#leaving.signal;
  }

  join(signal: AbortSignal | undefined): void {
    this.#count += 1;
    if (!signal) return;
    const leave = () => this.#leave();
    signal.addEventListener('abort', leave, { once: true });
    this.#ends.push(() => signal.removeEventListener('abort', leave));
  }

  /** The work is done: a signal that lives as long as the server would else hold on to it for ever. */
  end(): void {
    for (const end of this.#ends.splice(0)) end();
  }

  #leave(): void {
    this.#count -= 1;
    if (this.#count === 0) this.#leaving.abort();
  }
}

/** Lets each of several, named by a key, do so much at once; the rest of theirs waits, and keeps nobody else waiting. */
export function atMostEach(limit: number): <T>(key: string, work: () => Promise<T>) => Promise<T> {
  const lanes = new Map<string, { readonly run: ReturnType<typeof pLimit>; asked: number }>();
  return async (key, work) => {
    const lane = lanes.get(key) ?? { run: pLimit(limit), asked: 0 };
    lanes.set(key, lane);
    lane.asked += 1;
    try {
      return await lane.run(work);
    } finally {
      lane.asked -= 1;
      if (lane.asked === 0) lanes.delete(key);
    }
  };
}
