import { and, desc, eq, gte, like, lt, or } from 'drizzle-orm';
import { Router } from 'express';
import { AUDIT_DEEDS, type AuditLine, type AuditQuery, isAuditDeed } from '#api/audit.ts';
import { writeCsv } from '#core/formats/csv.ts';
import { writeAudit } from './audit.ts';
import type { Context } from './context.ts';
import { audit } from './db/schema.ts';
import { allowed, personOf } from './people/guard.ts';
import { route } from './route.ts';

const AT_A_TIME = 20;
/** As many lines as a spreadsheet is opened with. */
const MOST_TAKEN = 100_000;
const DAY_MILLIS = 24 * 60 * 60 * 1000;

/** The log of what has to be answered for: the site owner searches it and takes it away. */
export function auditRoutes(context: Context): Router {
  const router = Router();
  const owner = allowed('set-rules');

  route(router, 'get /audit', owner, async (request, response) => {
    const query = request.query;
    const lines = await readAudit(context, query, AT_A_TIME);
    const last = lines.length === AT_A_TIME ? lines.at(-1) : undefined;
    response.json({ lines, cursor: last ? String(last.id) : null });
  });

  route(router, 'get /audit.csv', owner, async (request, response) => {
    const query = request.query;
    const lines = await readAudit(context, query, MOST_TAKEN);
    const now = new Date();
    await writeAudit(
      context.db,
      { person: personOf(request), what: 'audit-taken', subject: `${lines.length} lines` },
      now,
    );
    response.attachment(`placard-log-${now.toISOString().slice(0, 10)}.csv`).type('csv');
    response.send(
      writeCsv([
        ['at', 'who', 'what', 'subject', 'detail', 'address'],
        ...lines.map(({ at, who, what, subject, detail, address }) => [
          at,
          who,
          sayDeed(what),
          subject,
          detail,
          address,
        ]),
      ]),
    );
  });
  return router;
}

const sayDeed = (what: string) => (isAuditDeed(what) ? AUDIT_DEEDS[what] : what);

async function readAudit({ db }: Context, query: AuditQuery, most: number): Promise<AuditLine[]> {
  const { words = '', what = 'any', from, to, cursor } = query;
  const part = `%${words.trim().replace(/[\\%_]/g, '\\$&')}%`;
  const rows = await db
    .select()
    .from(audit)
    .where(
      and(
        what === 'any' ? undefined : eq(audit.what, what),
        from ? gte(audit.at, new Date(from)) : undefined,
        to ? lt(audit.at, new Date(Date.parse(to) + DAY_MILLIS)) : undefined,
        cursor ? lt(audit.id, Number(cursor)) : undefined,
        words.trim() === ''
          ? undefined
          : or(
              like(audit.who, part),
              like(audit.subject, part),
              like(audit.detail, part),
              like(audit.address, part),
            ),
      ),
    )
    .orderBy(desc(audit.id))
    .limit(most);
  return rows.map(({ at, ...row }) => ({ ...row, at: at.toISOString() }));
}
