import { spawn } from 'node:child_process';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** Where a database is, taken apart; its password goes into a file that nobody else may read, never into a command. */
export interface Schema {
  readonly name: string;
  readonly options: string;
}

export function schemaOf(databaseUrl: string): Schema {
  const { hostname, port, username, password, pathname } = new URL(databaseUrl);
  const quoted = (text: string) => `"${decodeURIComponent(text).replace(/["\\]/g, '\\$&')}"`;
  return {
    name: decodeURIComponent(pathname.slice(1)),
    options: `[client]\nhost=${hostname}\nport=${port || 3306}\nuser=${quoted(username)}\npassword=${quoted(password)}\nprotocol=tcp\n`,
  };
}

/** Runs one of the database's own programs on a schema, with what goes in and comes out. Throws with what it said. */
export async function runClient(
  program: 'mariadb-dump' | 'mariadb',
  { name, options }: Schema,
  args: readonly string[],
  { from, to }: { readonly from?: Readable; readonly to?: Writable },
): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'placard-client-'));
  try {
    const file = join(folder, 'client.cnf');
    await writeFile(file, options, { mode: 0o600 });
    const child = spawn(program, [`--defaults-file=${file}`, ...args, name], { stdio: 'pipe' });
    let said = '';
    child.stderr.on('data', (part) => {
      said += part;
    });
    const ended = new Promise<number | null>((resolve, reject) => {
      child.once('error', reject);
      child.once('exit', resolve);
    });
    if (from) await pipeline(from, child.stdin).catch(() => undefined);
    else child.stdin.end();
    if (to) await pipeline(child.stdout, to);
    const code = await ended;
    if (code !== 0) throw new Error(`${program} did not come to its end: ${said.slice(0, 500)}`);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
