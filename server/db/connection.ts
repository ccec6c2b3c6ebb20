import { AsyncLocalStorage } from 'node:async_hooks';
import { setTimeout } from 'node:timers/promises';
import { drizzle, type MySql2Database } from 'drizzle-orm/mysql2';
import type { PoolConnection } from 'mysql2';
import { createPool, type Pool } from 'mysql2/promise';
import { DatabaseBusy, isDeadlock } from './failures.ts';
import * as schema from './schema.ts';

export type Database = MySql2Database<typeof schema>;
/** The database, or a transaction on it: what a function takes that may run inside one. */
export type Queries = Pick<Database, 'select' | 'insert' | 'update' | 'delete' | 'execute'>;

export interface Connection {
  readonly db: Database;
  readonly pool: Pool;
}

const CONNECT_LIMIT_MILLIS = 3000;
const CONNECTIONS = 12;
/** Whoever waits longer for a connection is told to come again. */
const WAIT_LIMIT_MILLIS = 5000;
/** So many may wait; the next is told to come again at once. */
const WAITING_LIMIT = 500;

export function connect(databaseUrl: string): Connection {
  const pool = createPool({
    uri: databaseUrl,
    timezone: 'Z',
    connectionLimit: CONNECTIONS,
    queueLimit: WAITING_LIMIT,
    connectTimeout: CONNECT_LIMIT_MILLIS,
    enableKeepAlive: true,
    charset: 'utf8mb4',
  });
  // Rows are locked, and not the gaps between them: two pages that are saved at once have nothing to do with each other.
  pool.on('connection', (connection) => {
    connection.query('SET SESSION TRANSACTION ISOLATION LEVEL READ COMMITTED');
  });
  guard(pool);
  return { pool, db: patient(drizzle(pool, { schema, mode: 'default' })) };
}

/** Set while a transaction runs, through all that it waits for. */
const inTransaction = new AsyncLocalStorage<true>();

/**
 * The one door to a connection. Inside a transaction there is none: a transaction that waits for a second connection,
 * while as many others do the same, waits for ever (13 stale saves stopped the server for 50 s, 24 for good). The check
 * of boundaries finds most such places in the text; this one finds them all when they run. Elsewhere the wait is bounded.
 */
function guard({ pool }: Pool): void {
  const take = pool.getConnection.bind(pool);
  pool.getConnection = (done) => {
    if (inTransaction.getStore())
      return void done(new Error('A transaction asked for a second connection.'), NONE);
    let isLate = false;
    const timer = globalThis.setTimeout(() => {
      isLate = true;
      done(new DatabaseBusy(), NONE);
    }, WAIT_LIMIT_MILLIS);
    take((error, connection) => {
      clearTimeout(timer);
      if (isLate) connection?.release();
      else done(error, connection);
    });
  };
}

/** What the driver's type asks for beside an error; it is never looked at. */
const NONE = undefined as unknown as PoolConnection;

const TRIES = 6;
/** At most so long before it is begun again, twice as long each time, and never two at the same moment. */
const AGAIN_MILLIS = 10;

/**
 * Two transactions that wait for each other's rows are an ordinary thing: the database takes one of them back, and
 * its documentation asks that it be begun again. So what runs in a transaction may run more than once.
 */
function patient(db: MySql2Database<typeof schema>): MySql2Database<typeof schema> {
  const once = db.transaction.bind(db);
  db.transaction = async (work, config) => {
    for (let tries = 1; ; tries += 1) {
      try {
        return await once((tx) => inTransaction.run(true, () => work(tx)), config);
      } catch (error) {
        if (!isDeadlock(error) || tries >= TRIES) throw error;
        await setTimeout(Math.random() * AGAIN_MILLIS * 2 ** tries);
      }
    }
  };
  return db;
}
