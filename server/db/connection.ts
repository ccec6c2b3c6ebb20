import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import { createPool, type Pool } from 'mysql2/promise';
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
  return { pool, db: drizzle(pool, { schema, mode: 'default' }) };
}
