import { AsyncLocalStorage } from 'node:async_hooks';
import type { RequestHandler } from 'express';
import type { AuditDeed } from '#api/audit.ts';
import type { Person } from '#api/people.ts';
import type { Queries } from './db/connection.ts';
import { audit } from './db/schema.ts';

export interface AuditEntry {
  /** Who did it; null for Placard itself, and for whoever did not get in. */
  readonly person: Pick<Person, 'id' | 'name'> | null;
  readonly what: AuditDeed;
  /** What it was done to, as people call it. */
  readonly subject: string;
  readonly detail?: string;
}

const PLACARD = 'Placard';

/** The network address of the request that is being answered. */
const asker = new AsyncLocalStorage<string>();

export const rememberAsker: RequestHandler = (request, _response, next) => {
  asker.run(request.ip ?? '', next);
};

/**
 * Writes down what has to be answered for. Inside the transaction of the deed itself, so that neither is there without
 * the other.
 */
export async function writeAudit(db: Queries, entry: AuditEntry, now: Date): Promise<void> {
  await db.insert(audit).values({
    at: now,
    personId: entry.person?.id ?? null,
    who: (entry.person?.name ?? PLACARD).slice(0, 200),
    what: entry.what,
    subject: oneLine(entry.subject, 300),
    detail: oneLine(entry.detail ?? '', 1000),
    address: (asker.getStore() ?? '').slice(0, 60),
  });
}

/** What is said of the outside may hold anything; an entry is one line. */
function oneLine(text: string, most: number): string {
  return text.replace(/\p{C}+/gu, ' ').slice(0, most);
}
