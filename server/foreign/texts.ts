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
  readonly listed: (listing: Input<'listed'>, signal?: AbortSignal) => Promise<Output<'listed'>>;
  readonly pictureSize: (bytes: Uint8Array, signal?: AbortSignal) => Promise<Output<'pictureSize'>>;
  readonly learned: (probe: Input<'learned'>, signal?: AbortSignal) => Promise<Output<'learned'>>;
  readonly foreseen: (page: Input<'foreseen'>, signal?: AbortSignal) => Promise<Output<'foreseen'>>;
  readonly shown: (page: Input<'shown'>, signal?: AbortSignal) => Promise<Output<'shown'>>;
  readonly inherited: (page: Input<'inherited'>, signal?: AbortSignal) => Promise<Output<'inherited'>>;
  readonly inheritedShown: (
    page: Input<'inheritedShown'>,
    signal?: AbortSignal,
  ) => Promise<Output<'inheritedShown'>>;
  readonly section: (list: Input<'section'>, signal?: AbortSignal) => Promise<Output<'section'>>;
  readonly unzipped: (zip: Input<'unzipped'>, signal?: AbortSignal) => Promise<Output<'unzipped'>>;
  readonly headline: (html: string, signal?: AbortSignal) => Promise<Output<'headline'>>;
  /** Begins a process ahead of the first text. */
  readonly warm: () => void;
  readonly end: () => Promise<void>;
}

const PROCESSES = 2;
const MOST_BYTES = 600_000_000;
const IDLE_MILLIS = 30 * 60_000;
/** A megabyte takes a fifth of a second; a slow machine at its busiest some seconds. */
const LIMIT_MILLIS = 8000;
/** A whole page is read twice, and each of its frames once more: 5 MB took 6 s. */
const PAGE_MILLIS = 30_000;

export function textTool(limitMillis = LIMIT_MILLIS): TextTool {
  const pool = new ProcessPool(new URL('./text-process.ts', import.meta.url), {
    processes: PROCESSES,
    bytes: MOST_BYTES,
    idleMillis: IDLE_MILLIS,
  });
  const run = async <T extends Task>(
    task: T,
    input: Input<T>,
    signal?: AbortSignal,
    millis = limitMillis,
  ): Promise<Output<T>> => (await pool.run(task, input, { millis, signal })) as Output<T>;
  return {
    pagePictures: (page, signal) => run('pagePictures', page, signal),
    pageFacts: (page, signal) => run('pageFacts', page, signal),
    links: (page, signal) => run('links', page, signal),
    oembed: (text, signal) => run('oembed', { text }, signal),
    pasted: (text, hosts, signal) => run('pasted', { text, hosts }, signal),
    linkedAs: (wish, signal) => run('linkedAs', wish, signal),
    compared: (sent, signal) => run('compared', sent, signal),
    listed: (listing, signal) => run('listed', listing, signal),
    pictureSize: (bytes, signal) => run('pictureSize', { bytes }, signal),
    learned: (probe, signal) => run('learned', probe, signal),
    foreseen: (page, signal) => run('foreseen', page, signal),
    shown: (page, signal) => run('shown', page, signal),
    inherited: (page, signal) => run('inherited', page, signal, PAGE_MILLIS),
    inheritedShown: (page, signal) => run('inheritedShown', page, signal, PAGE_MILLIS),
    section: (list, signal) => run('section', list, signal),
    unzipped: (zip, signal) => run('unzipped', zip, signal, PAGE_MILLIS),
    headline: (html, signal) => run('headline', { html }, signal),
    warm: () => void run('links', { html: '', base: 'https://example.org' }).catch(() => undefined),
    end: () => pool.end(),
  };
}
