import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { startTestServer, type TestServer } from '../testing.ts';
import { connect } from './connection.ts';
import { applyMigrations } from './migrate.ts';
import { folders } from './schema.ts';

let server: TestServer;

beforeAll(async () => {
  server = await startTestServer('connection');
  await server.context.db.insert(folders).values([{ path: 'first' }, { path: 'second' }]);
});

afterAll(() => server.close());

describe('two transactions that wait for each other', () => {
  test('both come to their end', async () => {
    const { db } = server.context;
    const bothHoldOne = meeting(2);
    let begun = 0;
    const rename = (mine: string, other: string) =>
      db.transaction(async (tx) => {
        begun += 1;
        await tx.select().from(folders).where(eq(folders.path, mine)).for('update');
        await bothHoldOne();
        await tx.select().from(folders).where(eq(folders.path, other)).for('update');
        return mine;
      });
    const ended = await Promise.all([rename('first', 'second'), rename('second', 'first')]);
    expect(ended).toEqual(['first', 'second']);
    expect(begun).toBe(3);
  });

  test('an error of the work itself is not tried again', async () => {
    let begun = 0;
    const work = server.context.db.transaction(async () => {
      begun += 1;
      throw new Error('The tide is out.');
    });
    await expect(work).rejects.toThrow('The tide is out.');
    expect(begun).toBe(1);
  });
});

describe('a transaction', () => {
  test('that asks for a second connection is refused at once, instead of waiting for one that is never given', async () => {
    const { db } = server.context;
    const work = db.transaction(async (tx) => {
      await tx.select().from(folders);
      return db.select().from(folders);
    });
    await expect(work).rejects.toMatchObject({
      cause: { message: 'A transaction asked for a second connection.' },
    });
    await expect(db.transaction(() => db.transaction(async () => 1))).rejects.toThrow('second connection');
  });
});

describe('when all connections are taken', () => {
  test('who waits too long is told to come again, and the next one is served', async () => {
    const { pool } = server.context.connection;
    const taken = await Promise.all(Array.from({ length: 12 }, () => pool.getConnection()));
    const answer = await fetch(`${server.origin}/api/beginning`);
    expect(answer.status).toBe(503);
    expect(answer.headers.get('retry-after')).toBe('2');
    expect((await answer.json()).detail).toContain('Too much is asked of Placard just now');
    for (const connection of taken) connection.release();
    expect((await fetch(`${server.origin}/api/beginning`)).status).toBe(200);
  });
});

describe('migrations', () => {
  test('of a newer Placard are refused in words, and nothing is touched', async () => {
    const { connection } = server.context;
    await connection.pool.query(
      "INSERT INTO __drizzle_migrations (hash, created_at) VALUES ('newer', 9999999999999)",
    );
    await expect(applyMigrations(connection)).rejects.toThrow('A newer Placard has changed this database');
    await connection.pool.query("DELETE FROM __drizzle_migrations WHERE hash = 'newer'");
    await expect(applyMigrations(connection)).resolves.toBeUndefined();
  });

  test('are applied once, however many processes start at the same time', async () => {
    await server.context.connection.pool.query('DROP DATABASE IF EXISTS placard_at_once');
    await server.context.connection.pool.query('CREATE DATABASE placard_at_once CHARACTER SET utf8mb4');
    const url = server.context.config.databaseUrl.replace(/[^/]+$/, 'placard_at_once');
    const many = Array.from({ length: 4 }, () => connect(url));
    await Promise.all(many.map(applyMigrations));
    await Promise.all(many.map(({ pool }) => pool.end()));
    await server.context.connection.pool.query('DROP DATABASE placard_at_once');
  });
});

/** Lets those who come wait until `count` are there; whoever comes later passes. */
function meeting(count: number): () => Promise<void> {
  let come = 0;
  let open: () => void = () => undefined;
  const opened = new Promise<void>((resolve) => {
    open = resolve;
  });
  return () => {
    come += 1;
    if (come >= count) open();
    return opened;
  };
}
