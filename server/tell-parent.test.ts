import { fork } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { expect, it } from 'vitest';

it('tells a parent that is there, and takes it calmly when nobody is any more', async () => {
  const child = fork(join(import.meta.dirname, 'testing-child.ts'), {
    execArgv: ['--import', 'tsx'],
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  const [said] = await once(child, 'message');
  expect(said).toBe('listening');
  const ended = once(child, 'exit');
  child.disconnect();
  expect(await ended).toEqual([7, null]);
});
