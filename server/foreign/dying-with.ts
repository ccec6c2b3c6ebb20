import { existsSync } from 'node:fs';

const SETPRIV = '/usr/bin/setpriv';

/**
 * A command that the kernel ends when whoever started it is gone, in whatever way (PR_SET_PDEATHSIG): a killed server
 * leaves no program behind that would wait for it for ever. Where that cannot be had, the plain command.
 */
export function dyingWith(program: string, args: readonly string[]): readonly [string, ...string[]] {
  return existsSync(SETPRIV) ? [SETPRIV, '--pdeathsig=KILL', program, ...args] : [program, ...args];
}
