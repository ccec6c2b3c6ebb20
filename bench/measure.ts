/** The middle of several timings in milliseconds, after one that is not counted: what is compared is done before. */
export async function median(work: () => unknown | Promise<unknown>, runs = 9): Promise<number> {
  return (await timings(work, runs)).at(Math.floor(runs / 2)) ?? 0;
}

/** Sorted timings in milliseconds. */
export async function timings(
  work: () => unknown | Promise<unknown>,
  runs: number,
): Promise<readonly number[]> {
  await work();
  const times: number[] = [];
  for (let run = 0; run < runs; run += 1) times.push(await timeOf(work));
  return times.sort((a, b) => a - b);
}

export async function timeOf(work: () => unknown | Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return performance.now() - start;
}

export function say(what: string, figure: string): void {
  process.stdout.write(`${what.padEnd(64)} ${figure}\n`);
}

export const times = (ours: number, bare: number) => `${(ours / bare).toFixed(2)} times`;
export const millis = (value: number) => `${value < 10 ? value.toFixed(1) : Math.round(value)} ms`;

/** Runs `work` while looking at this process's memory; answers the peak in MB. */
export async function peakMemory(work: () => Promise<unknown>): Promise<number> {
  let peak = 0;
  const look = () => {
    peak = Math.max(peak, process.memoryUsage().rss);
  };
  const timer = setInterval(look, 20);
  try {
    await work();
  } finally {
    clearInterval(timer);
  }
  look();
  return Math.round(peak / 1_000_000);
}
