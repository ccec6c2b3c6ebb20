// Brings a machine with only Node and Debian's tools to where Placard can run. No dependencies: nothing is
// installed yet when this begins.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

/** Debian packages by the program that shows whether they are there. */
const PROGRAMS = {
  mariadbd: { at: ['/usr/sbin/mariadbd'], debian: 'mariadb-server' },
  'mariadb-dump': { at: ['/usr/bin/mariadb-dump'], debian: 'mariadb-client' },
  perl: { at: ['/usr/bin/perl'], debian: 'perl' },
  setpriv: { at: ['/usr/bin/setpriv'], debian: 'util-linux' },
  ffmpeg: { at: ['/usr/bin/ffmpeg'], debian: 'ffmpeg' },
  pdftoppm: { at: ['/usr/bin/pdftoppm'], debian: 'poppler-utils' },
  sshd: { at: ['/usr/sbin/sshd'], debian: 'openssh-server' },
  chromium: { at: ['/usr/bin/chromium-headless-shell'], debian: 'chromium-headless-shell' },
};

export function say(sentence) {
  process.stdout.write(`${sentence}\n`);
}

export function stopWith(sentence) {
  process.stderr.write(`\n${sentence}\n`);
  process.exit(1);
}

/** Programs that this one waits for. They end with it. */
const running = new Set();

/** Runs a program to its end, and stops everything when it fails. Meanwhile signals are heard. */
export async function run(command, args, options = {}) {
  const child = spawn(command, args, { cwd: root, stdio: 'inherit', ...options });
  running.add(child);
  const code = await new Promise((resolve) => child.once('error', resolve).once('exit', resolve));
  running.delete(child);
  if (code !== 0) stopWith(`"${command} ${args.join(' ')}" did not work. Nothing was started.`);
}

/** Ends what `run` still waits for. */
export function endRunning() {
  for (const child of running) child.kill('SIGTERM');
}

/** Installs the Debian packages of the named programs that are missing. */
export async function ensurePrograms(names) {
  const missing = names.filter((name) => !PROGRAMS[name].at.some((path) => existsSync(path)));
  if (missing.length === 0) return;
  const packages = missing.map((name) => PROGRAMS[name].debian);
  say(`Installing ${packages.join(', ')} from Debian.`);
  const isRoot = process.getuid?.() === 0;
  const sudo = isRoot ? [] : ['sudo'];
  // What comes with a service of its own starts none: Placard starts what it needs, on loopback.
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive', RUNLEVEL: '1' };
  const apt = (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    return run(command, rest, { env, stdio: ['ignore', 'ignore', 'inherit'] });
  };
  await apt('update', '-qq');
  await apt('install', '-y', '-qq', '--no-install-recommends', ...packages);
}

/** Installs the node modules when the lock file is not the one they were installed from. */
export async function ensureNodeModules() {
  const stampFile = join(root, 'node_modules', '.installed-from');
  const lock = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === lock) return;
  say('Installing the node modules.');
  // Not `npm ci`: it refuses a lock file that leaves out packages for other systems, as this one does.
  await run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']);
  mkdirSync(dirname(stampFile), { recursive: true });
  writeFileSync(stampFile, lock);
}

export function ensureNodeVersion() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major > 20 || (major === 20 && minor >= 19)) return;
  stopWith(
    `Placard needs Node 20.19 or newer; this is ${process.versions.node}. Install it and start again.`,
  );
}

/** A folder that whoever runs Placard alone may enter; so are the files that are made from here on. */
export function ensureOwnFolder(folder) {
  process.umask(0o077);
  mkdirSync(folder, { recursive: true });
  chmodSync(folder, 0o700);
}
