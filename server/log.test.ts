import { DrizzleQueryError } from 'drizzle-orm/errors';
import { expect, test } from 'vitest';
import { tellError } from './log.ts';

test('a failed query is told without the values that it was asked with', () => {
  const lost = Object.assign(new Error('Connection lost'), {
    code: 'PROTOCOL_CONNECTION_LOST',
    sql: "select * from `sessions` where `id` = 'session-key'",
  });
  const query = new DrizzleQueryError('select * from `sessions` where `id` = ?', ['session-key'], lost);
  const told = tellError(new Error('The database does not answer.', { cause: query }));
  expect(JSON.stringify(told)).not.toContain('session-key');
  expect(told).toMatchObject({
    message: 'The database does not answer.',
    cause: {
      message: 'Failed query: select * from `sessions` where `id` = ?',
      cause: { message: 'Connection lost', code: 'PROTOCOL_CONNECTION_LOST' },
    },
  });
  expect(told.at[0]).toMatch(/^at .*log\.test\.ts/);
});

test('what is thrown without being an error is told as it is', () => {
  expect(tellError('a string')).toEqual({ type: 'string', message: 'a string', at: [] });
});
