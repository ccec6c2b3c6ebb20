import { HttpProblem } from '../problem.ts';
import { serveTasks } from './serve.ts';

// Tasks for the test of the pool: what honest work does, and what bytes from outside can make it do.
serveTasks({
  double: (bytes: Uint8Array) => Buffer.concat([bytes, bytes]),
  refuse: () => {
    throw new HttpProblem(415, 'It is not a picture.');
  },
  full: () => {
    throw Object.assign(new Error('no space left'), { code: 'ENOSPC' });
  },
  endless: () => {
    for (;;) Math.random();
  },
  /** Takes its time without computing, as what waits for its turn on a busy machine does. */
  idle: (millis: number) => new Promise((resolve) => setTimeout(resolve, millis, 'done')),
  hoard: async () => {
    const held: Buffer[] = [];
    for (;;) {
      held.push(Buffer.alloc(20_000_000, held.length));
      await new Promise((resolve) => setTimeout(resolve, 5));
    }
  },
  die: () => process.kill(process.pid, 'SIGSEGV'),
  environment: () => Object.keys(process.env),
});
