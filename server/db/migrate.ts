import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import type { RowDataPacket } from 'mysql2';
import * as v from 'valibot';
import { StartProblem } from '../start-problem.ts';
import type { Connection } from './connection.ts';

const FOLDER = fileURLToPath(new URL('./migrations', import.meta.url));
const JournalSchema = v.object({ entries: v.array(v.object({ when: v.number() })) });
const LOCK = 'placard-migrations';
const LOCK_SECONDS = 120;

/** A database that a newer Placard has been at. */
class NewerDatabase extends StartProblem {
  constructor() {
    super(
      'A newer Placard has changed this database, and this one does not know how. Nothing was touched. Start the newer one, or bring back a backup from before it.',
    );
    this.name = 'NewerDatabase';
  }
}

/**
 * Applies the migrations that the database has not seen, in their order. Forward only; by one process at a time,
 * however many start at once. Throws `NewerDatabase`.
 */
export async function applyMigrations({ db, pool }: Connection): Promise<void> {
  const connection = await pool.getConnection();
  try {
    await connection.query('SELECT GET_LOCK(?, ?)', [LOCK, LOCK_SECONDS]);
    const [seen] = await connection
      .query<RowDataPacket[]>('SELECT MAX(created_at) AS newest FROM __drizzle_migrations')
      .catch(() => [[]] as const);
    if (Number(seen[0]?.newest ?? 0) > newestKnown()) throw new NewerDatabase();
    await migrate(db, { migrationsFolder: FOLDER });
  } finally {
    await connection.query('SELECT RELEASE_LOCK(?)', [LOCK]).catch(() => undefined);
    connection.release();
  }
}

function newestKnown(): number {
  const journal = v.parse(JournalSchema, JSON.parse(readFileSync(`${FOLDER}/meta/_journal.json`, 'utf8')));
  return Math.max(...journal.entries.map(({ when }) => when));
}
