import { randomUUID } from 'node:crypto';
import { and, desc, eq, inArray, ne } from 'drizzle-orm';
import type * as v from 'valibot';
import type { BringInWish, InheritedLine, InheritedListSchema, InheritedPage } from '#api/inherited.ts';
import type { Person } from '#api/people.ts';
import { allFaults, fileNameOf } from '#core/inherited/facts.ts';
import { type Fault, outcomeOf } from '#core/inherited/fault.ts';
import { sayFault, sayFaults } from '#core/inherited/say.ts';
import { unwordedUses } from '#core/inherited/unworded.ts';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { assets, held, inheritedPages, jobs, pages, people, placements, targets } from '../db/schema.ts';
import { farAddress } from '../gather/preview.ts';
import { addJob } from '../jobs/queue.ts';
import { inheritedPath, signedAddress } from '../media/addresses.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { thumbAddress } from '../shelf/present.ts';
import { throwAway } from '../shelf/put-away.ts';
import { BRING_IN } from './bring-in.ts';
import { type InheritedRow, READ_INHERITED } from './look.ts';
import type { ToRead } from './to-read.ts';

const MOST_LISTED = 300;
const UNDER_WAY = ['waiting', 'running'];

/** Orders pages to be read, by one job. The first is named by `id`, so that the same wish once more begins none. */
export async function orderReading(
  context: Context,
  some: readonly ToRead[],
  targetId: string,
  person: Person,
  now: Date,
  id: string,
): Promise<readonly string[]> {
  const [target] = await context.db.select({ id: targets.id }).from(targets).where(eq(targets.id, targetId));
  if (!target) throw notFound('This target');
  const ids = some.map((_, at) => (at === 0 ? id : randomUUID()));
  return context.db.transaction(async (tx) => {
    const [known] = await tx
      .select({ id: inheritedPages.id })
      .from(inheritedPages)
      .where(eq(inheritedPages.id, id));
    if (known) return [id];
    const [first] = some;
    const title = some.length === 1 && first ? `Reading ${first.source}` : `Reading ${some.length} pages`;
    const input = { inheritedIds: ids };
    const jobId = await addJob({ db: tx }, { kind: READ_INHERITED, title, input, personId: person.id }, now);
    for (const [at, one] of some.entries())
      await tx.insert(inheritedPages).values({
        ...one,
        source: one.source.slice(0, 2000),
        id: ids[at] ?? randomUUID(),
        targetId,
        personId: person.id,
        at: now,
        state: 'reading',
        jobId,
      });
    return ids;
  });
}

const selected = ({ db }: Context) =>
  db
    .select({ row: inheritedPages, by: people.name, rules: targets.rules })
    .from(inheritedPages)
    .leftJoin(people, eq(people.id, inheritedPages.personId))
    .leftJoin(targets, eq(targets.id, inheritedPages.targetId));
type Selected = Awaited<ReturnType<typeof selected>>[number];

/** The pages that were read or brought in, the newest first; those that were taken back are gone. */
export async function listInherited(context: Context): Promise<v.InferOutput<typeof InheritedListSchema>> {
  const rows = await selected(context)
    .where(ne(inheritedPages.state, 'back'))
    .orderBy(desc(inheritedPages.at), inheritedPages.source)
    .limit(MOST_LISTED);
  return rows.map(lineOf);
}

function lineOf({ row, by, rules }: Selected): InheritedLine {
  const faults = faultsOf(row);
  return {
    id: row.id,
    source: row.source,
    title: row.reading?.title ?? '',
    targetId: row.targetId,
    targetName: rules?.name ?? 'a target that was removed',
    by: by ?? 'somebody who left',
    at: row.at.toISOString(),
    state: stateOf(row.state),
    faults: faults.length,
    asks: faults.filter((fault) => outcomeOf(fault) === 'asks').length,
    words: row.words,
    jobId: row.jobId,
    pageId: row.pageId,
  };
}

const faultsOf = ({ reading, facts }: InheritedRow): readonly Fault[] =>
  reading && facts ? allFaults(reading, facts) : [];

function stateOf(state: string): InheritedLine['state'] {
  switch (state) {
    case 'read':
    case 'coming':
    case 'in':
    case 'back':
      return state;
    default:
      return 'reading';
  }
}

export async function readInherited(context: Context, id: string): Promise<InheritedPage> {
  const [found] = await selected(context).where(eq(inheritedPages.id, id));
  if (!found) throw notFound('This page');
  const { row } = found;
  const faults = faultsOf(row);
  const frame = (which: 'found' | 'written') => signedAddress(context, inheritedPath(row, which), 'look');
  const countOf = (code: 'licence-unknown' | 'link-dead'): number => {
    const fault = faults.find((one) => one.code === code);
    return fault && 'count' in fault.values ? fault.values.count : 0;
  };
  return {
    ...lineOf(found),
    address: row.address,
    said: sayFaults(faults, row.state === 'in'),
    list: faults.map((fault) => ({
      code: fault.code,
      ...sayFault(fault),
      outcome: outcomeOf(fault),
      spots: [...fault.spots],
    })),
    left: (row.reading?.left ?? []).map(({ kind, count, examples }) => ({
      kind,
      count,
      examples: [...examples],
    })),
    bytes: row.bytes,
    pictures: row.reading?.uses.length ?? 0,
    unknownLicences: countOf('licence-unknown'),
    deadLinks: countOf('link-dead'),
    unworded: await unworded(context, row),
    framed: [...(row.reading?.framed ?? [])],
    frames: {
      found: row.html === null ? null : frame('found'),
      written: row.reading && row.facts ? frame('written') : null,
    },
    wishes: row.became ? { alts: {}, isOurs: row.became.isOurs, ...row.became.wishes } : null,
    mayBeTakenBack: await mayBeTakenBack(context, row),
  };
}

const MOST_ASKED = 100;

/** The pictures that ask for words, as they can be looked at before they are taken. */
async function unworded(context: Context, { reading, facts, base }: InheritedRow) {
  if (!reading || !facts) return [];
  const ids = facts.files.flatMap((fact) => fact?.held ?? []);
  const rows = ids.length === 0 ? [] : await context.db.select().from(held).where(inArray(held.id, ids));
  const ofFile = (file: number) => rows.find(({ id }) => id === facts.files[file]?.held) ?? null;
  return unwordedUses(reading, (file) => ofFile(file)?.label.alt ?? null)
    .slice(0, MOST_ASKED)
    .map((use) => {
      const file = reading.uses[use]?.file ?? -1;
      const row = ofFile(file);
      const where = facts.where[file];
      const look = where === undefined ? null : farAddress(context, { address: where, page: base });
      const { address = '' } = reading.files[file] ?? {};
      return { use, name: fileNameOf({ address }), look: row ? thumbAddress(context, row) : look };
    });
}

/** The document as it stood when it was read. */
export async function keptHtml({ db }: Context, id: string): Promise<string> {
  const [row] = await db
    .select({ html: inheritedPages.html })
    .from(inheritedPages)
    .where(eq(inheritedPages.id, id));
  if (row?.html === undefined || row.html === null) throw notFound('This page');
  return row.html;
}

/** Orders pages that were read to be brought in, by one job. Those that are ordered already are not ordered twice. */
export async function orderBringIn(
  context: Context,
  ids: readonly string[],
  { isOurs, ...wishes }: BringInWish,
  person: Person,
  now: Date,
): Promise<void> {
  await context.db.transaction(async (tx) => {
    const rows = await tx
      .select()
      .from(inheritedPages)
      .where(inArray(inheritedPages.id, [...ids]))
      .for('update');
    if (rows.length === 0) throw notFound('This page');
    const fresh = rows.filter(({ state }) => state !== 'coming' && state !== 'in');
    const unread = fresh.find(({ reading, facts }) => !reading || !facts);
    if (unread)
      throw new HttpProblem(409, `${unread.source} was not read to its end yet. Wait until it was.`);
    const [first] = fresh;
    if (!first) return;
    const became = {
      wishes,
      isOurs,
      since: now.toISOString(),
      files: {},
      embeds: {},
      documents: {},
      fresh: [],
    };
    const title =
      fresh.length === 1
        ? `Bringing in ${first.reading?.title || first.source}`
        : `Bringing in ${fresh.length} pages`;
    const inheritedIds = fresh.map(({ id }) => id);
    const jobId = await addJob(
      { db: tx },
      { kind: BRING_IN, title, input: { inheritedIds }, personId: person.id },
      now,
    );
    await tx
      .update(inheritedPages)
      .set({ state: 'coming', became, jobId, personId: person.id, words: '' })
      .where(inArray(inheritedPages.id, inheritedIds));
  });
}

async function mayBeTakenBack(
  { db }: Context,
  { state, pageId, pageVersion }: InheritedRow,
): Promise<boolean> {
  if (state !== 'in' || pageId === null) return false;
  const [page] = await db.select({ version: pages.version }).from(pages).where(eq(pages.id, pageId));
  return page?.version === pageVersion;
}

/** Takes back what was brought in, as one step: the page goes, and what came new with it is thrown away where nothing else uses it. */
export async function takeBack(context: Context, id: string, person: Person, now: Date): Promise<void> {
  const [row] = await context.db.select().from(inheritedPages).where(eq(inheritedPages.id, id));
  if (!row) throw notFound('This page');
  if (row.state !== 'in') return;
  const { pageId } = row;
  await context.db.transaction(async (tx) => {
    const [page] =
      pageId === null ? [] : await tx.select().from(pages).where(eq(pages.id, pageId)).for('update');
    if (page && page.version !== row.pageVersion)
      throw new HttpProblem(
        409,
        'Somebody has worked on this page since it came in. Nothing was taken back; what was mended can be undone in its versions.',
      );
    if (page) await tx.delete(pages).where(eq(pages.id, page.id));
    await tx
      .update(inheritedPages)
      .set({ state: 'read', pageId: null, pageVersion: null })
      .where(eq(inheritedPages.id, id));
    const detail = `the page and ${row.became?.fresh.length ?? 0} pieces`;
    await writeAudit(tx, { person, what: 'taken-back', subject: page?.title ?? row.source, detail }, now);
  });
  for (const assetId of await unused(context, row.became?.fresh ?? []))
    await throwAway(context, assetId, person, now);
}

/** Those of some pieces that stand on no page. */
async function unused({ db }: Context, ids: readonly string[]): Promise<readonly string[]> {
  if (ids.length === 0) return [];
  const used = await db
    .selectDistinct({ id: placements.assetId })
    .from(placements)
    .where(inArray(placements.assetId, [...ids]));
  const kept = await db
    .select({ id: assets.id })
    .from(assets)
    .where(inArray(assets.id, [...ids]));
  const stands = new Set(used.map((one) => one.id));
  return kept.map((one) => one.id).filter((one) => !stands.has(one));
}

/** Puts away what was read and is not brought in; refused while a job works on it. */
export async function putAway({ db }: Context, id: string): Promise<void> {
  await db.transaction(async (tx) => {
    const [row] = await tx.select().from(inheritedPages).where(eq(inheritedPages.id, id)).for('update');
    if (!row) return;
    const [working] = await tx
      .select({ id: jobs.id })
      .from(jobs)
      .where(and(eq(jobs.id, row.jobId), inArray(jobs.state, UNDER_WAY)));
    const isWaited = row.state === 'coming' || (row.state === 'reading' && row.words === '');
    if (working && isWaited)
      throw new HttpProblem(409, 'This page is being worked on just now. Stop that first.');
    await tx.delete(inheritedPages).where(eq(inheritedPages.id, id));
  });
}
