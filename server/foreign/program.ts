import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { promisify } from 'node:util';
import { dyingWith } from './dying-with.ts';
import { PATIENCE } from './time-watch.ts';

const run = promisify(execFile);

interface Limits {
  /** On the processor; what only waits is ended after some times as long. */
  readonly millis: number;
  /** Of memory. */
  readonly bytes: number;
  /** Of what it says. */
  readonly answerBytes: number;
}

/** A program that reads bytes from outside, within limits: what it said, as text. Throws what `execFile` does, with `stderr`. */
export async function runProgram(program: string, args: readonly string[], limits: Limits): Promise<string> {
  const [command, ...rest] = dyingWith(...limited(program, args, limits));
  const { stdout } = await run(command, rest, {
    // The kernel ends what computes for longer than the limit; this is for what does not compute.
    timeout: limits.millis * PATIENCE,
    killSignal: 'SIGKILL',
    maxBuffer: limits.answerBytes,
    env: { PATH: process.env.PATH, LANG: 'C.UTF-8' },
  });
  return stdout;
}

const PRLIMIT = '/usr/bin/prlimit';

/** With a limit of memory, and of time on the processor should nobody be there to end it. */
function limited(
  program: string,
  args: readonly string[],
  { millis, bytes }: Limits,
): readonly [string, readonly string[]] {
  if (!existsSync(PRLIMIT)) return [program, args];
  return [PRLIMIT, [`--as=${bytes}`, `--cpu=${Math.ceil(millis / 1000)}`, program, ...args]];
}
