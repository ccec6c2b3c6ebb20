import { availableParallelism } from 'node:os';
import * as v from 'valibot';
import { ForeignProblem, sayForeignFault } from '../foreign/problem.ts';
import { ProcessPool } from '../foreign/process-pool.ts';
import { HttpProblem } from '../problem.ts';
import type { CutOrder } from './cut.ts';
import type { Draft } from './draft.ts';
import type { FirstLook } from './first-look.ts';
import type { CurveOrder, FormatCurve } from './likeness/curve.ts';
import { CurvesSchema } from './likeness/stored-curves.ts';
import type { DetailOrder, DraftOrder, NamedFile, PICTURE_TASKS } from './picture-tasks.ts';
import { type OriginalFacts, shortName } from './read-original.ts';

type Task = keyof typeof PICTURE_TASKS;
type Input<T extends Task> = Parameters<(typeof PICTURE_TASKS)[T]>[0];
type Output<T extends Task> = Awaited<ReturnType<(typeof PICTURE_TASKS)[T]>>;

/** All work on the bytes of pictures from outside: in processes of their own, within limits of time and memory. */
export interface PictureTool {
  /** What a file is. Throws an HttpProblem with a sentence for what cannot be taken. */
  readonly facts: (file: NamedFile) => Promise<OriginalFacts>;
  readonly firstLook: (file: NamedFile & { readonly facts: OriginalFacts }) => Promise<FirstLook>;
  readonly cut: (path: string, order: CutOrder, signal?: AbortSignal) => Promise<Buffer>;
  readonly draft: (path: string, order: DraftOrder, signal?: AbortSignal) => Promise<Draft>;
  readonly detail: (order: DetailOrder, signal?: AbortSignal) => Promise<Buffer>;
  readonly curve: (order: CurveOrder, signal?: AbortSignal) => Promise<readonly FormatCurve[]>;
  readonly small: (bytes: Uint8Array, edge: number, signal?: AbortSignal) => Promise<Buffer>;
  readonly size: (bytes: Uint8Array, signal?: AbortSignal) => Promise<Output<'size'>>;
  readonly poster: (bytes: Uint8Array, signal?: AbortSignal) => Promise<Uint8Array>;
  readonly end: () => Promise<void>;
}

/** A picture of 150 megapixels that is read in one go takes some 900 MB; anything over that is built to. */
const MOST_BYTES = 1_000_000_000;
const IDLE_MILLIS = 60_000;
const FACTS_MILLIS = 15_000;
const LOOK_MILLIS = 30_000;
/** A drawing of honest work is drawn in well under a second; one of filters over filters never. */
const DRAWING_MILLIS = 8000;
const CUT_MILLIS = 60_000;
const SMALL_MILLIS = 10_000;
const CURVE_MILLIS = 180_000;

/**
 * Looking at what comes in, making cuts, drafts of them, and measuring wait in lanes of their own: what somebody hands
 * in does not hold up the pictures that others are shown. Processes begin when they are needed.
 */
export function pictureTool(): PictureTool {
  const entry = new URL('./picture-process.ts', import.meta.url);
  const lane = (processes: number) =>
    new ProcessPool(entry, { processes, bytes: MOST_BYTES, idleMillis: IDLE_MILLIS });
  const cores = availableParallelism();
  const [looking, making, measuring] = [lane(2), lane(Math.min(4, Math.max(2, cores))), lane(1)];
  const drafting = lane(2);
  const run = async <T extends Task>(
    pool: ProcessPool,
    task: T,
    input: Input<T>,
    millis: number,
    signal?: AbortSignal,
  ): Promise<Output<T>> => (await pool.run(task, input, { millis, signal })) as Output<T>;
  return {
    facts: (file) => named(file, run(looking, 'facts', file, FACTS_MILLIS)),
    firstLook: (file) =>
      named(
        file,
        run(looking, 'firstLook', file, file.facts.format === 'svg' ? DRAWING_MILLIS : LOOK_MILLIS),
      ),
    cut: (path, order, signal) => run(making, 'cut', { path, order }, CUT_MILLIS, signal),
    draft: (path, order, signal) => run(drafting, 'draft', { path, order }, LOOK_MILLIS, signal),
    detail: (order, signal) => run(making, 'detail', order, CUT_MILLIS, signal),
    curve: async (order, signal) =>
      v.parse(CurvesSchema, await run(measuring, 'curve', order, CURVE_MILLIS, signal)),
    small: (bytes, edge, signal) => run(looking, 'small', { bytes, edge }, SMALL_MILLIS, signal),
    size: (bytes, signal) => run(looking, 'size', { bytes }, SMALL_MILLIS, signal),
    poster: (bytes, signal) => run(looking, 'poster', { bytes }, SMALL_MILLIS, signal),
    end: async () => {
      await Promise.all([looking.end(), making.end(), measuring.end(), drafting.end()]);
    },
  };
}

/** What was too much of a file, said with its name. */
async function named<T>({ name }: NamedFile, work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof ForeignProblem) || error.fault === 'stopped') throw error;
    throw new HttpProblem(
      413,
      `${shortName(name)} ${sayForeignFault(error.fault)}, so it was not taken. Save it again, simpler or smaller.`,
      {},
      { cause: error },
    );
  }
}
