import type { ChildProcess } from 'node:child_process';

interface Services {
  readonly stop: () => Promise<unknown>;
  readonly ended: Promise<unknown>;
  readonly processes: readonly ChildProcess[];
}

/** Starts the app, and the stand-ins where they are wished for; answers once both listen. */
export function startServices(wish: {
  readonly env: Readonly<Record<string, string | undefined>>;
  readonly port: number;
  readonly standIns?: boolean;
}): Promise<Services>;
