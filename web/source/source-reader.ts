import type { SourceRequest } from './read.worker.ts';
import type { SourceBase, TypedReading } from './read-typed.ts';

/** After this pause in typing what was typed is read. */
const TYPING_MILLIS = 250;
/** Whatever takes longer than this to read is stopped: 4 MB take some 3 s on a slow machine. */
const MOST_MILLIS = 20_000;

/** Reads what is typed in source off the screen's own thread, the last of it first, and stops what takes too long. */
export class SourceReader {
  #worker: Worker | null = null;
  #base: SourceBase | null = null;
  #number = 0;
  #typing: ReturnType<typeof setTimeout> | undefined;
  #limit: ReturnType<typeof setTimeout> | undefined;
  readonly #onRead: (reading: TypedReading, text: string) => void;

  constructor(onRead: (reading: TypedReading, text: string) => void) {
    this.#onRead = onRead;
  }

  /** From now on texts are read onto this page. */
  begin(base: SourceBase): void {
    this.stop();
    this.#base = base;
  }

  read(text: string): void {
    clearTimeout(this.#typing);
    this.#typing = setTimeout(() => this.#ask(text), TYPING_MILLIS);
  }

  #ask(text: string): void {
    if (!this.#base) return;
    const number = this.#number + 1;
    this.#number = number;
    const worker = this.#worker ?? this.#start(this.#base);
    worker.onmessage = ({
      data,
    }: MessageEvent<{ readonly number: number; readonly reading: TypedReading }>) => {
      if (data.number !== this.#number) return;
      clearTimeout(this.#limit);
      this.#onRead(data.reading, text);
    };
    clearTimeout(this.#limit);
    this.#limit = setTimeout(() => {
      this.#kill();
      this.#onRead(
        { kind: 'refused', why: 'This takes too long to read. Nothing was changed: take some of it out.' },
        text,
      );
    }, MOST_MILLIS);
    const request: SourceRequest = { kind: 'typed', number, text };
    worker.postMessage(request);
  }

  #start(base: SourceBase): Worker {
    const worker = new Worker(new URL('./read.worker.ts', import.meta.url), { type: 'module' });
    const request: SourceRequest = { kind: 'base', base };
    worker.postMessage(request);
    this.#worker = worker;
    return worker;
  }

  #kill(): void {
    this.#worker?.terminate();
    this.#worker = null;
  }

  /** Nothing that was asked is answered any more. */
  stop(): void {
    clearTimeout(this.#typing);
    clearTimeout(this.#limit);
    this.#number += 1;
    this.#kill();
  }
}
