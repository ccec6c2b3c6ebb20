import type { ChildProcess } from 'node:child_process';

export interface Services {
  /** Resolves once all answer; rejects when one ends before. */
  readonly listening: Promise<unknown>;
  /** Resolves once the demo hangs too, or there is none. */
  readonly whole: Promise<void>;
  /** Resolves when one has ended too often to be started again. */
  readonly ended: Promise<void>;
  readonly stop: () => Promise<unknown>;
  readonly children: readonly ChildProcess[];
}

export function startServices(wish: {
  readonly env: NodeJS.ProcessEnv;
  readonly port: number;
  readonly standIns?: boolean;
}): Services;
