import { availableParallelism } from 'node:os';
import { Piscina } from 'piscina';
import * as v from 'valibot';
import type { CurveOrder, FormatCurve } from './curve.ts';

/** Measures curves in threads of their own. */
export interface LikenessTool {
  readonly measure: (order: CurveOrder, signal?: AbortSignal) => Promise<readonly FormatCurve[]>;
  readonly end: () => Promise<void>;
}

const IDLE_MILLIS = 30_000;
const MOST_THREADS = 4;

/** Threads begin with the first curve and end when none was asked for a while. */
export function likenessTool(): LikenessTool {
  let pool: Piscina | null = null;
  const open = () =>
    new Piscina({
      filename: new URL('./worker.ts', import.meta.url).href,
      execArgv: ['--import', 'tsx'],
      minThreads: 0,
      maxThreads: Math.min(MOST_THREADS, Math.max(1, availableParallelism() - 1)),
      idleTimeout: IDLE_MILLIS,
    });
  return {
    measure: async (order, signal) => {
      pool ??= open();
      return v.parse(CurvesSchema, await pool.run(order, signal ? { signal } : {}));
    },
    end: async () => {
      await pool?.destroy();
      pool = null;
    },
  };
}

const MeasuredSchema = v.object({
  quality: v.number(),
  bytes: v.number(),
  likeness: v.number(),
  worst: v.object({ x: v.number(), y: v.number(), likeness: v.number() }),
});
export const CurvesSchema = v.array(
  v.object({ format: v.picklist(['avif', 'webp', 'jpeg']), samples: v.array(MeasuredSchema) }),
);
