/** Runs work at most `limit` at once, the rest in the order in which it came. */
export function atMost(limit: number): <T>(work: () => Promise<T>) => Promise<T> {
  let running = 0;
  const waiting: (() => void)[] = [];
  return async (work) => {
    if (running >= limit) await new Promise<void>((resolve) => waiting.push(resolve));
    running += 1;
    try {
      return await work();
    } finally {
      running -= 1;
      waiting.shift()?.();
    }
  };
}

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
