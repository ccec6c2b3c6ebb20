import { type ChildProcess, spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { dyingWith } from '../foreign/dying-with.ts';
import { HttpProblem } from '../problem.ts';

/** Of what a program says last, so much is kept for a sentence about why it ended, and for what it measured. */
const KEPT_SAID = 400_000;

interface LongRun {
  readonly program: string;
  readonly args: readonly string[];
  /** Of memory. */
  readonly bytes: number;
  /** Seconds on the processors. */
  readonly seconds: number;
  readonly signal: AbortSignal;
  readonly onOut?: (bytes: Buffer) => void;
}

/** Thrown where a program ended without having done its work. */
export class ProgramFailed extends Error {
  readonly said: string;
  constructor(program: string, said: string) {
    super(`${program} ended: ${said.slice(-2000)}`);
    this.said = said;
  }
}

/**
 * A program that works for minutes or hours on bytes from outside, within limits, after everything that somebody waits for.
 * Ends with whoever started it, and when `signal` aborts. Answers what it said on its second stream; throws `ProgramFailed`.
 */
export async function runLong({ program, args, bytes, seconds, signal, onOut }: LongRun): Promise<string> {
  signal.throwIfAborted();
  const [command, ...rest] = dyingWith(...within(program, args, bytes, seconds));
  const child = spawn(command, rest, {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { PATH: process.env.PATH, LANG: 'C.UTF-8' },
  });
  const end = () => child.kill('SIGKILL');
  signal.addEventListener('abort', end, { once: true });
  try {
    const { code, said } = await ended(child, onOut);
    signal.throwIfAborted();
    if (code === 0) return said;
    if (said.includes('No space left on device'))
      throw new HttpProblem(
        507,
        'The disk is full. Nothing half-made was kept; make room, and let it go on.',
      );
    throw new ProgramFailed(program, said);
  } finally {
    signal.removeEventListener('abort', end);
  }
}

function ended(
  child: ChildProcess,
  onOut: LongRun['onOut'],
): Promise<{ readonly code: number | null; readonly said: string }> {
  let said = '';
  child.stderr?.setEncoding('utf8').on('data', (text: string) => {
    said = `${said}${text}`.slice(-KEPT_SAID);
  });
  child.stdout?.on('data', (chunk: Buffer) => onOut?.(chunk));
  return new Promise((resolve, reject) => {
    child.on('error', reject);
    child.on('close', (code) => resolve({ code, said }));
  });
}

const PRLIMIT = '/usr/bin/prlimit';
const NICE = '/usr/bin/nice';

function within(
  program: string,
  args: readonly string[],
  bytes: number,
  seconds: number,
): readonly [string, readonly string[]] {
  const polite = existsSync(NICE) ? [NICE, '-n', '15', program, ...args] : [program, ...args];
  const [first = program, ...others] = existsSync(PRLIMIT)
    ? [PRLIMIT, `--as=${bytes}`, `--cpu=${Math.ceil(seconds)}`, ...polite]
    : polite;
  return [first, others];
}
