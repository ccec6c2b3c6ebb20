import { createReadStream } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createGunzip } from 'node:zlib';
import { asc, gt } from 'drizzle-orm';
import { createConnection, type RowDataPacket } from 'mysql2/promise';
import * as v from 'valibot';
import type { Config } from '../config.ts';
import { closeContext, openContext } from '../context.ts';
import { held } from '../db/schema.ts';
import { makeAllAgain } from '../films/make-again.ts';
import { filesOfPiece } from '../shelf/own-file.ts';
import { StartProblem } from '../start-problem.ts';
import { originalKey } from '../storage/storage.ts';
import { ABOUT, DUMP, filesOf } from './backup.ts';
import { runClient, schemaOf } from './client.ts';

const AboutSchema = v.object({ format: v.literal(1), at: v.string() });

export interface Restored {
  /** When the backup was made (ISO 8601). */
  readonly at: string;
  readonly files: number;
  readonly pieces: number;
  /** Pieces whose original is not in the backup, or has other bytes. */
  readonly broken: readonly string[];
}

const AT_A_TIME = 500;

/**
 * Brings a house back from a backup into an empty database and an empty place for files, and then holds one against the
 * other. Throws `StartProblem` where the place is not empty: nothing is ever written over.
 */
export async function restore(config: Config, folder: string): Promise<Restored> {
  const { at } = await aboutOf(folder);
  await assertEmpty(config.databaseUrl);
  const from = createReadStream(join(folder, DUMP)).pipe(createGunzip());
  await runClient('mariadb', schemaOf(config.databaseUrl), [], { from });
  const context = await openContext(config);
  try {
    let files = 0;
    for await (const key of filesOf(folder)) {
      const sha256 = key.split('/').at(-1);
      await context.storage.take(key, join(folder, 'files', key), sha256);
      files += 1;
    }
    await makeAllAgain(context, new Date());
    const broken: string[] = [];
    let pieces = 0;
    for (let after = ''; ; ) {
      const rows = await context.db
        .select({
          id: held.id,
          sha256: held.sha256,
          documentSha256: held.documentSha256,
          filmSha256: held.filmSha256,
          stem: held.stem,
        })
        .from(held)
        .where(gt(held.id, after))
        .orderBy(asc(held.id))
        .limit(AT_A_TIME);
      for (const { stem, ...row } of rows)
        for (const one of filesOfPiece(row))
          if (!(await context.storage.has(originalKey(one)))) broken.push(stem);
      pieces += rows.length;
      const last = rows.at(-1);
      if (!last) return { at, files, pieces, broken };
      after = last.id;
    }
  } finally {
    await closeContext(context);
  }
}

async function aboutOf(folder: string): Promise<v.InferOutput<typeof AboutSchema>> {
  const text = await readFile(join(folder, ABOUT), 'utf8').catch(() => null);
  const read = text === null ? null : v.safeParse(AboutSchema, JSON.parse(text));
  if (read?.success) return read.output;
  throw new StartProblem(`${folder} holds no backup that came to its end. Nothing was changed.`);
}

async function assertEmpty(databaseUrl: string): Promise<void> {
  const connection = await createConnection(databaseUrl);
  try {
    const [tables] = await connection.query<RowDataPacket[]>('SHOW TABLES');
    if (tables.length > 0)
      throw new StartProblem(
        'This database is not empty, and a backup is only brought back into an empty one. Nothing was changed. Name an empty database in DATABASE_URL and an empty folder in PLACARD_DATA.',
      );
  } finally {
    await connection.end();
  }
}
