import { and, eq, gte, sql } from 'drizzle-orm';
import type { Report, ReportPage } from '#api/report.ts';
import { isLost } from '#core/deliver/compare.ts';
import { countFindings } from '#core/report/day.ts';
import { dayIn } from '#core/rights/terms.ts';
import type { Context } from '../context.ts';
import { deliveries, reportDays } from '../db/schema.ts';
import { proofOf } from '../pages/proof.ts';
import { everyPage } from '../pages/store.ts';
import { readTargets } from '../rules/store.ts';
import { isNewest } from '../sending/deliveries.ts';

/** As many days as a year has, and one to hold the same day against. */
const DAYS = 366;

/** How pages stood day by day, and each of them now. What is known of today is kept for the days to come. */
export async function readReport(context: Context, now: Date): Promise<Report> {
  const pages = await pagesNow(context, now);
  const names = await keepToday(context, pages, now);
  const since = dayIn('UTC', new Date(now.getTime() - DAYS * 24 * 60 * 60 * 1000));
  const days = await context.db.select().from(reportDays).where(gte(reportDays.day, since));
  return { targets: names, days, pages };
}

/** Keeps how pages stand today, over what was kept of today before. */
export async function keepReport(context: Context, now: Date): Promise<void> {
  await keepToday(context, await pagesNow(context, now), now);
}

/** Every page with its findings now, and how it stands where it was sent to. */
async function pagesNow(context: Context, now: Date): Promise<ReportPage[]> {
  const out = await standingNow(context);
  const pages: ReportPage[] = [];
  for await (const { wholes } of everyPage(context))
    for (const whole of wholes) {
      const { row, doc, targetId } = whole;
      const standing = out.get(`${row.id} ${targetId}`);
      pages.push({
        id: row.id,
        title: doc.title,
        targetId,
        ...countFindings(proofOf(whole, now)),
        isOut: standing !== undefined,
        lost: standing?.lost ?? 0,
        bytes: standing?.bytes ?? null,
      });
    }
  return pages;
}

interface Standing {
  readonly lost: number;
  readonly bytes: number | null;
}

async function standingNow({ db }: Context): Promise<ReadonlyMap<string, Standing>> {
  const rows = await db
    .select({
      pageId: deliveries.pageId,
      targetId: deliveries.targetId,
      compared: deliveries.compared,
      bytes: deliveries.foundBytes,
    })
    .from(deliveries)
    .where(and(eq(deliveries.state, 'out'), isNewest(db)));
  return new Map(
    rows.map(({ pageId, targetId, compared, bytes }) => [
      `${pageId} ${targetId}`,
      { lost: (compared ?? []).filter(isLost).length, bytes },
    ]),
  );
}

async function keepToday(
  context: Context,
  pages: readonly ReportPage[],
  now: Date,
): Promise<Report['targets']> {
  const { db } = context;
  const names: Report['targets'] = [];
  for (const { id, rules } of await readTargets(context)) {
    const { name, timeZone } = rules;
    names.push({ id, name });
    const own = pages.filter(({ targetId }) => targetId === id);
    const sum = (of: (page: ReportPage) => number) => own.reduce((all, page) => all + of(page), 0);
    const weighed = own.flatMap(({ bytes }) => bytes ?? []);
    const counted = {
      pages: own.length,
      out: sum(({ isOut }) => Number(isOut)),
      sent: await sentSince(db, id, new Date(now.getTime() - sinceMidnight(timeZone, now))),
      stops: sum(({ stops }) => stops),
      mends: sum(({ mends }) => mends),
      words: sum(({ words }) => words),
      rights: sum(({ rights }) => rights),
      bytes:
        weighed.length === 0
          ? null
          : Math.round(weighed.reduce((all, bytes) => all + bytes, 0) / weighed.length),
    };
    await db
      .insert(reportDays)
      .values({ day: dayIn(timeZone, now), targetId: id, ...counted })
      .onDuplicateKeyUpdate({ set: counted });
  }
  return names;
}

/** How long the day has lasted in a time zone, but for an hour where its clocks are changed on it. */
function sinceMidnight(timeZone: string, now: Date): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
    hourCycle: 'h23',
  }).formatToParts(now);
  const of = (type: string) => Number(parts.find((part) => part.type === type)?.value ?? 0);
  return ((of('hour') * 60 + of('minute')) * 60 + of('second')) * 1000;
}

async function sentSince(db: Context['db'], targetId: string, since: Date): Promise<number> {
  const [row] = await db
    .select({ count: sql<number>`count(*)` })
    .from(deliveries)
    .where(and(eq(deliveries.targetId, targetId), gte(deliveries.at, since)));
  return Number(row?.count ?? 0);
}
