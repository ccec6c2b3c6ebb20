import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import type { Logger } from 'pino';
import { atMostEach } from './at-once.ts';
import type { Config } from './config.ts';
import { type Connection, connect, type Database } from './db/connection.ts';
import { applyMigrations } from './db/migrate.ts';
import { settings } from './db/schema.ts';
import { type DocumentTool, documentTool } from './documents/documents.ts';
import { type TextTool, textTool } from './foreign/texts.ts';
import { keepMemoryFlat } from './imaging/memory.ts';
import { type MetadataTool, metadataTool } from './imaging/metadata.ts';
import { type PictureTool, pictureTool } from './imaging/pictures.ts';
import { makeLog } from './log.ts';
import { portOf } from './outbound/guard.ts';
import { makeOutbound, type Outbound } from './outbound/outbound.ts';
import { type Signatures, signatures } from './signatures.ts';
import { bucketStorage } from './storage/bucket.ts';
import { diskStorage } from './storage/disk.ts';
import type { Storage } from './storage/storage.ts';

/** What every part of the server works with. Made once at the start. */
export interface Context {
  readonly config: Config;
  readonly db: Database;
  readonly connection: Connection;
  readonly storage: Storage;
  readonly outbound: Outbound;
  readonly metadata: MetadataTool;
  readonly pictures: PictureTool;
  readonly documents: DocumentTool;
  readonly texts: TextTool;
  readonly signatures: Signatures;
  /** Lets each person, by ID, look at so many foreign things at once. */
  readonly looks: ReturnType<typeof atMostEach>;
  /** Lets each person's files be taken in one after the other. */
  readonly arrivals: ReturnType<typeof atMostEach>;
  readonly secret: string;
  readonly log: Logger;
  /** Aborts when this process is about to end. */
  readonly ending: AbortSignal;
}

export async function openContext(
  config: Config,
  ending: AbortSignal = new AbortController().signal,
): Promise<Context> {
  keepMemoryFlat();
  const connection = connect(config.databaseUrl);
  await applyMigrations(connection);
  const secret = await secretOf(connection.db);
  return {
    config,
    connection,
    db: connection.db,
    storage: config.bucket
      ? bucketStorage(config.bucket, join(config.dataFolder, 'cache'))
      : diskStorage(join(config.dataFolder, 'files')),
    outbound: makeOutbound({ ports: config.standInPorts, near: nearHostsOf(config) }),
    metadata: metadataTool(),
    pictures: pictureTool(),
    documents: documentTool(),
    texts: textTool(),
    signatures: signatures(secret),
    looks: atMostEach(config.quotas.looksEach),
    arrivals: atMostEach(1),
    secret,
    log: makeLog(process.env.LOG_LEVEL ?? 'warn'),
    ending,
  };
}

export async function closeContext(context: Context): Promise<void> {
  await context.metadata.end();
  await context.pictures.end();
  await context.documents.end();
  await context.texts.end();
  await context.connection.pool.end();
}

/** One secret for all processes on one database, made at the first start. */
async function secretOf(db: Database): Promise<string> {
  await db
    .insert(settings)
    .ignore()
    .values({ name: 'secret', value: randomBytes(32).toString('base64url') });
  const [row] = await db.select().from(settings).where(eq(settings.name, 'secret'));
  if (!row) throw new Error('The database kept no secret.');
  return row.value;
}

/** Where readers are served from here may be reached as any of their pages is, also within the house's own network. */
function nearHostsOf({ nearHosts, publicOrigin }: Config): readonly string[] {
  if (publicOrigin === null) return nearHosts;
  const address = new URL(publicOrigin);
  return [...nearHosts, `${address.hostname}:${portOf(address)}`];
}
