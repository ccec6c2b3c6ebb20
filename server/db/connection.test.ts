import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { startTestServer, type TestServer } from '../testing.ts';
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
