import type { Hosts } from '#core/embed/host.ts';
import { ProcessPool } from './process-pool.ts';
import type { Page, TEXT_TASKS } from './text-tasks.ts';

type Task = keyof typeof TEXT_TASKS;
type Input<T extends Task> = Parameters<(typeof TEXT_TASKS)[T]>[0];
type Output<T extends Task> = ReturnType<(typeof TEXT_TASKS)[T]>;

/** Reading of text from outside, off the event loop and for so long at most. Each throws `ForeignProblem`. */
export interface TextTool {
  readonly pagePictures: (page: Page, signal?: AbortSignal) => Promise<Output<'pagePictures'>>;
  readonly pageFacts: (page: Page, signal?: AbortSignal) => Promise<Output<'pageFacts'>>;
  readonly links: (page: Page, signal?: AbortSignal) => Promise<Output<'links'>>;
  readonly oembed: (text: string, signal?: AbortSignal) => Promise<Output<'oembed'>>;
  readonly pasted: (text: string, hosts: Hosts, signal?: AbortSignal) => Promise<Output<'pasted'>>;
  readonly linkedAs: (wish: Input<'linkedAs'>, signal?: AbortSignal) => Promise<Output<'linkedAs'>>;
  readonly compared: (readBack: Input<'compared'>, signal?: AbortSignal) => Promise<Output<'compared'>>;
  readonly shown: (page: Input<'shown'>, signal?: AbortSignal) => Promise<Output<'shown'>>;
  /** Begins a process ahead of the first text. */
  readonly warm: () => void;
  readonly end: () => Promise<void>;
}

const PROCESSES = 2;
const MOST_BYTES = 600_000_000;
const IDLE_MILLIS = 30 * 60_000;
/** A megabyte takes a fifth of a second; a slow machine at its busiest some seconds. */
const LIMIT_MILLIS = 8000;

export function textTool(limitMillis = LIMIT_MILLIS): TextTool {
  const pool = new ProcessPool(new URL('./text-process.ts', import.meta.url), {
    processes: PROCESSES,
    bytes: MOST_BYTES,
    idleMillis: IDLE_MILLIS,
  });
  const run = async <T extends Task>(task: T, input: Input<T>, signal?: AbortSignal): Promise<Output<T>> =>
    (await pool.run(task, input, { millis: limitMillis, signal })) as Output<T>;
  return {
    pagePictures: (page, signal) => run('pagePictures', page, signal),
    pageFacts: (page, signal) => run('pageFacts', page, signal),
    links: (page, signal) => run('links', page, signal),
    oembed: (text, signal) => run('oembed', { text }, signal),
    pasted: (text, hosts, signal) => run('pasted', { text, hosts }, signal),
    linkedAs: (wish, signal) => run('linkedAs', wish, signal),
    compared: (sent, signal) => run('compared', sent, signal),
    shown: (page, signal) => run('shown', page, signal),
    warm: () => void run('links', { html: '', base: 'https://example.org' }).catch(() => undefined),
    end: () => pool.end(),
  };
}
