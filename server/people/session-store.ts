import { eq } from 'drizzle-orm';
import { type SessionData, Store } from 'express-session';
import * as v from 'valibot';
import type { Database } from '../db/connection.ts';
import { sessions } from '../db/schema.ts';

const SESSION_DAYS = 14;
export const SESSION_MILLIS = SESSION_DAYS * 24 * 60 * 60 * 1000;

const DataSchema = v.looseObject({
  cookie: v.looseObject({}),
  personId: v.optional(v.string()),
  signedInAt: v.optional(v.number()),
  address: v.optional(v.string(), ''),
  agent: v.optional(v.string(), ''),
});

type Callback<T> = (error?: unknown, value?: T) => void;

/** Sessions as rows, so that any number of processes share them. */
export class SessionStore extends Store {
  readonly #db: Database;

  constructor(db: Database) {
    super();
    this.#db = db;
  }

  override get(id: string, callback: Callback<SessionData | null>): void {
    this.#read(id).then((data) => callback(null, data), callback);
  }

  override set(id: string, data: SessionData, callback?: Callback<never>): void {
    this.#write(id, data).then(() => callback?.(), callback);
  }

  override destroy(id: string, callback?: Callback<never>): void {
    this.#db
      .delete(sessions)
      .where(eq(sessions.id, id))
      .then(() => callback?.(), callback);
  }

  async #write(id: string, session: SessionData): Promise<void> {
    const now = new Date();
    const expiresAt = new Date(now.getTime() + SESSION_MILLIS);
    const data = JSON.parse(JSON.stringify(session));
    const { personId = null, signedInAt, address = '', agent = '' } = v.parse(DataSchema, data);
    const row = {
      data,
      expiresAt,
      personId,
      signedInAt: signedInAt === undefined ? null : new Date(signedInAt),
      seenAt: now,
      address,
      agent,
    };
    await this.#db
      .insert(sessions)
      .values({ id, ...row })
      .onDuplicateKeyUpdate({ set: row });
  }

  async #read(id: string): Promise<SessionData | null> {
    const [row] = await this.#db.select().from(sessions).where(eq(sessions.id, id));
    if (!row || row.expiresAt.getTime() < Date.now()) return null;
    const data = v.safeParse(DataSchema, row.data);
    return data.success ? (data.output as unknown as SessionData) : null;
  }
}
