import { mkdtemp, readFile, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { describe, expect, it } from 'vitest';
import { startDatabase, stopDatabase } from '../scripts/lib/mariadb.mjs';

/** The database that Placard brings, as whoever is on the same machine finds it. Tests run on one of the very same making. */

const own = new URL(process.env.TEST_DATABASE_SERVER ?? '');
const folder = join(process.env.TEST_FOLDER ?? '', 'database');

const OTHER_PORT = 4536;

const enter = (user: string, password: string) =>
  createConnection({ host: own.hostname, port: Number(own.port), user, password });

async function say(sql: string): Promise<unknown> {
  const connection = await enter(own.username, own.password);
  try {
    const [rows] = await connection.query(sql);
    return rows;
  } finally {
    await connection.end();
  }
}

describe('the private database', () => {
  it.each([
    ['root', ''],
    ['root', own.password],
    ['', ''],
    ['mysql', ''],
    [own.username, ''],
    [own.username, 'placard'],
  ])('lets nobody in as “%s” with “%s”', async (user, password) => {
    await expect(enter(user, password)).rejects.toMatchObject({
      code: expect.stringMatching(/^ER_ACCESS_DENIED/),
    });
  });

  it.each([
    ['another schema', 'CREATE DATABASE elsewhere'],
    ['its users', 'SELECT * FROM mysql.global_priv'],
    ['a new user', "CREATE USER 'x'@'%' IDENTIFIED BY 'y'"],
    ['a right for others', "GRANT SELECT ON placard.* TO 'x'@'%'"],
    ['its settings', 'SET GLOBAL max_connections = 1'],
    ['writing a file', "SELECT 'x' INTO OUTFILE '/tmp/placard-outfile'"],
  ])('gives Placard’s own user no right to %s', async (_what, sql) => {
    await expect(say(sql)).rejects.toMatchObject({
      code: expect.stringMatching(/DENIED|ER_CANT_CREATE_USER|ER_PASSWORD_NO_MATCH/),
    });
  });

  it('reads it no file of the machine', async () => {
    expect(await say("SELECT LOAD_FILE('/etc/passwd') AS bytes")).toEqual([{ bytes: null }]);
  });

  it('lies in a folder that nobody else enters, with its password in a file that nobody else reads', async () => {
    const modeOf = async (path: string) => ((await stat(path)).mode & 0o777).toString(8);
    expect(await modeOf(folder)).toBe('700');
    expect(await modeOf(join(folder, 'password'))).toBe('600');
    expect(own.password.length).toBeGreaterThanOrEqual(32);
  });

  it('listens on this machine alone', async () => {
    expect(await say('SELECT @@bind_address AS at')).toEqual([{ at: '127.0.0.1' }]);
  });

  it.each(['SIGTERM', 'SIGKILL'] as const)(
    'starts again at once after %s, however it was ended',
    async (signal) => {
      const other = await mkdtemp(join(tmpdir(), 'placard-database-'));
      const pid = async () => Number(await readFile(join(other, 'mariadb.pid'), 'utf8'));
      try {
        await startDatabase({ folder: other, port: OTHER_PORT });
        const before = await pid();
        process.kill(before, signal);
        const { url } = await startDatabase({ folder: other, port: OTHER_PORT });
        expect(await pid()).not.toBe(before);
        await (await createConnection(url)).end();
      } finally {
        await stopDatabase(other);
        await rm(other, { recursive: true });
      }
    },
  );
});
