import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { createPool, type Pool } from 'mysql2/promise';
import { isDeadlock } from './failures.ts';
import * as schema from './schema.ts';

export type Database = MySql2Database<typeof schema>;
/** The database, or a transaction on it. */
export type Queries = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface Connection {
  readonly db: Database;
  readonly pool: Pool;
}

const CONNECT_LIMIT_MILLIS = 3000;

export function connect(databaseUrl: string): Connection {
  const pool = createPool({
    uri: databaseUrl,
    timezone: 'Z',
    connectionLimit: 12,
    connectTimeout: CONNECT_LIMIT_MILLIS,
    enableKeepAlive: true,
    charset: 'utf8mb4',
  });
  return { pool, db: patient(drizzle(pool, { schema, mode: 'default' })) };
}

const DEADLOCK_TRIES = 4;

/**
 * Two transactions that wait for each other's rows are an ordinary thing: the database takes one of them back, and
 * its documentation asks that it be begun again. So what runs in a transaction may run more than once.
 */
function patient(db: MySql2Database<typeof schema>): MySql2Database<typeof schema> {
  const once = db.transaction.bind(db);
  db.transaction = async (work, config) => {
    for (let tries = 1; ; tries += 1) {
      try {
        return await once(work, config);
      } catch (error) {
        if (!isDeadlock(error) || tries >= DEADLOCK_TRIES) throw error;
      }
    }
  };
  return db;
}
