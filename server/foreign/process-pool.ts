import { type ChildProcess, fork } from 'node:child_process';
import { constants, setPriority } from 'node:os';
import { fileURLToPath } from 'node:url';
import { dyingWith } from './dying-with.ts';
import { fromSent, type Sent } from './errors.ts';
import { watchMemory } from './memory-watch.ts';
import { type ForeignFault, ForeignProblem } from './problem.ts';
import { watchTime } from './time-watch.ts';

export interface PoolLimits {
  /** How many processes work at once; the rest waits in its order. */
  readonly processes: number;
  /** Memory of one process, in bytes, over which it is killed. */
  readonly bytes: number;
  /** A process that had nothing to do for this long ends. */
  readonly idleMillis: number;
}

export interface Asked {
  /** Computing for longer than this it is killed. */
  readonly millis: number;
  /** Aborts when nobody waits for the answer any more: what waits is dropped, what runs is killed. */
  readonly signal?: AbortSignal | undefined;
}

interface Order extends Asked {
  readonly task: string;
  readonly input: unknown;
  readonly done: (result: unknown) => void;
  readonly failed: (error: unknown) => void;
}

/** Runs tasks on foreign bytes in processes of their own, few at a time, that can be killed in the middle of anything. */
export class ProcessPool {
  readonly #entry: string;
  readonly #limits: PoolLimits;
  readonly #waiting: Order[] = [];
  readonly #workers = new Set<Worker>();
  #isEnded = false;

  constructor(entry: URL, limits: PoolLimits) {
    this.#entry = fileURLToPath(entry);
    this.#limits = limits;
  }

  /** Runs one task. Throws what the task threw, or `ForeignProblem` where it was given up. */
  run(task: string, input: unknown, asked: Asked): Promise<unknown> {
    if (this.#isEnded || asked.signal?.aborted) return Promise.reject(new ForeignProblem('stopped'));
    const { signal } = asked;
    let drop = () => {};
    const answer = new Promise((done, failed) => {
      const order: Order = { ...asked, task, input, done, failed };
      drop = () => this.#drop(order);
      signal?.addEventListener('abort', drop, { once: true });
      this.#waiting.push(order);
      this.#next();
    });
    // A signal may live as long as the server: what is done is not held on to by it.
    return answer.finally(() => signal?.removeEventListener('abort', drop));
  }

  /** Kills what runs and refuses what waits. */
  async end(): Promise<void> {
    this.#isEnded = true;
    for (const { failed } of this.#waiting.splice(0)) failed(new ForeignProblem('stopped'));
    await Promise.all([...this.#workers].map((worker) => worker.kill('stopped')));
  }

  #drop(order: Order): void {
    const at = this.#waiting.indexOf(order);
    if (at < 0) return;
    this.#waiting.splice(at, 1);
    order.failed(new ForeignProblem('stopped'));
  }

  #next(): void {
    const idle = [...this.#workers].find((worker) => worker.isIdle);
    if (this.#waiting.length === 0) return;
    const worker = idle ?? (this.#workers.size < this.#limits.processes ? this.#start() : undefined);
    const order = worker && this.#waiting.shift();
    if (order) worker.work(order);
  }

  #start(): Worker {
    const worker = new Worker(this.#entry, this.#limits, {
      idle: () => this.#next(),
      gone: () => {
        this.#workers.delete(worker);
        this.#next();
      },
    });
    this.#workers.add(worker);
    return worker;
  }
}

interface Told {
  readonly idle: () => void;
  readonly gone: () => void;
}

/** One process and what it works on. */
class Worker {
  readonly #child: ChildProcess;
  readonly #limits: PoolLimits;
  readonly #told: Told;
  #order: Order | null = null;
  #fault: ForeignFault = 'ended';
  #endWork: () => void = () => {};
  #idle: ReturnType<typeof setTimeout> | undefined;
  #isGone = false;

  constructor(entry: string, limits: PoolLimits, told: Told) {
    this.#limits = limits;
    this.#told = told;
    const [program, ...args] = dyingWith(process.execPath, ['--import', 'tsx']);
    this.#child = fork(entry, {
      execPath: program,
      execArgv: args,
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      // What reads foreign bytes knows nothing of the house: no address of the database, no keys.
      env: { PATH: process.env.PATH, NODE_ENV: process.env.NODE_ENV, FORCE_COLOR: '0' },
    });
    if (this.#child.pid) tryToLower(this.#child.pid);
    this.#child.on('message', (sent: Sent) => this.#answered(sent));
    this.#child.once('exit', () => this.#gone());
    this.#child.once('error', () => this.#gone());
    // What has nothing to do keeps no process alive.
    this.#child.unref();
    this.#child.channel?.unref();
  }

  get isIdle(): boolean {
    return this.#order === null && !this.#isGone && this.#fault === 'ended';
  }

  work(order: Order): void {
    this.#order = order;
    clearTimeout(this.#idle);
    this.#child.channel?.ref();
    const stop = () => void this.kill('stopped');
    order.signal?.addEventListener('abort', stop, { once: true });
    const pid = this.#child.pid;
    const endClock = watchTime(pid, order.millis, () => void this.kill('too-long'));
    const endWatch = watchMemory(
      () => (pid ? [pid] : []),
      this.#limits.bytes,
      () => void this.kill('too-much-memory'),
    );
    this.#endWork = () => {
      endClock();
      endWatch();
      order.signal?.removeEventListener('abort', stop);
      this.#child.channel?.unref();
    };
    this.#child.send({ task: order.task, input: order.input }, (error) => {
      if (error) void this.kill('ended');
    });
  }

  kill(fault: ForeignFault): Promise<void> {
    if (this.#isGone) return Promise.resolve();
    this.#fault = fault;
    return new Promise((resolve) => {
      this.#child.once('exit', () => resolve());
      this.#child.kill('SIGKILL');
    });
  }

  #answered(sent: Sent): void {
    const order = this.#order;
    if (!order) return;
    this.#endWork();
    this.#order = null;
    if ('result' in sent) order.done(sent.result);
    else order.failed(fromSent(sent));
    this.#idle = setTimeout(() => void this.kill('stopped'), this.#limits.idleMillis);
    this.#idle.unref();
    this.#told.idle();
  }

  #gone(): void {
    if (this.#isGone) return;
    this.#isGone = true;
    clearTimeout(this.#idle);
    this.#endWork();
    this.#order?.failed(new ForeignProblem(this.#fault));
    this.#order = null;
    this.#told.gone();
  }
}

/** People's clicks come before pictures. */
function tryToLower(pid: number): void {
  try {
    setPriority(pid, constants.priority.PRIORITY_BELOW_NORMAL);
  } catch {
    // It ended already, which is told elsewhere.
  }
}
