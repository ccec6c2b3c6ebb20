// npm run soak: bounded, and outside of npm test. On a database, a bucket and ports of its own.
import { spawn } from 'node:child_process';
import { ensureNodeModules, ensureNodeVersion, ensurePrograms, root } from './lib/machine.mjs';

ensureNodeVersion();
await ensurePrograms(['mariadbd', 'perl', 'setpriv', 'pdftoppm']);
await ensureNodeModules();
process.umask(0o077);
const child = spawn(process.execPath, ['--import', 'tsx', 'bench/soak/soak.ts', ...process.argv.slice(2)], {
  cwd: root,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
process.exit((await new Promise((resolve) => child.once('exit', resolve))) ?? 1);
