import { fileURLToPath } from 'node:url';
import { migrate } from 'drizzle-orm/mysql2/migrator';
import type { Database } from './connection.ts';

/** Applies the migrations that the database has not seen, in their order. Forward only. */
export async function applyMigrations(db: Database): Promise<void> {
  await migrate(db, { migrationsFolder: fileURLToPath(new URL('./migrations', import.meta.url)) });
}
