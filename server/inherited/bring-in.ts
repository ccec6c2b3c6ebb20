import { eq, inArray } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import type { Embed } from '#core/embed/model.ts';
import { readLicence } from '#core/gather/reading.ts';
import { fileNameOf } from '#core/inherited/facts.ts';
import type { Inherited, InheritedFile } from '#core/inherited/reading.ts';
import { type Became, toPage } from '#core/inherited/to-page.ts';
import type { PageDoc } from '#core/page/model.ts';
import type { HouseRules } from '#core/page/target.ts';
import type { Alt, LabelPatch } from '#core/rights/label.ts';
import { STORED, toStored } from '#core/stored.ts';
import { writeActivity } from '../activity.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/connection.ts';
import { held, inheritedPages, pages, pageVersions, people } from '../db/schema.ts';
import type { StoredBecame, StoredFacts } from '../db/tables/inherited.ts';
import { keepEmbed } from '../embeds/keep.ts';
import { plainPicture } from '../gather/read-address.ts';
import { fetchAndTake } from '../gather/taking.ts';
import type { JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { indexPlacements } from '../pages/store.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { changeAsset } from '../shelf/change.ts';
import type { AssetRow } from '../shelf/present.ts';
import { eachPage, InheritedJobSchema, type InheritedRow } from './look.ts';

export const BRING_IN = 'bring-in';

/** What is taken in so far, each once however often the job is begun. */
interface Taking {
  readonly context: Context;
  readonly row: InheritedRow;
  readonly reading: Inherited;
  readonly facts: StoredFacts;
  readonly rules: HouseRules;
  readonly person: Person;
  readonly signal: AbortSignal;
}

/**
 * The job behind "Bring it in": of each page, its pictures, documents and embeds are taken in one after the other, and the page is made
 * of them at the end, in one step; mended in a second one, so that what was mended can be undone by itself.
 */
export async function bringIn(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const { inheritedIds } = v.parse(InheritedJobSchema, job.input);
  return eachPage(context, inheritedIds, tools, {
    isDone: ({ state }) => state !== 'coming',
    work: bringInOne,
    says: 'in',
  });
}

async function bringInOne(context: Context, row: InheritedRow, tools: JobTools): Promise<void> {
  const { reading, facts, became: before } = row;
  if (!reading || !facts || !before) throw new HttpProblem(404, 'This page was put away.');
  const { rules } = await readTarget(context, row.targetId);
  const [by] = await context.db.select().from(people).where(eq(people.id, row.personId));
  if (!by) throw new HttpProblem(404, 'Whoever ordered this is not here any more.');
  const taking = { context, row, reading, facts, rules, person: presentPerson(by), signal: tools.signal };
  await makePage(taking, await takeAll(taking, before, tools));
}

async function takeAll(taking: Taking, before: StoredBecame, { report }: JobTools): Promise<StoredBecame> {
  const { reading, facts, context, row } = taking;
  let became = before;
  const of = reading.files.length + reading.embeds.length + reading.documents.length;
  let done = 0;
  const each = async (
    list: 'files' | 'embeds' | 'documents',
    key: string,
    words: string,
    take: () => Promise<Came | null>,
  ) => {
    await report(done, of, words);
    done += 1;
    if (became[list][key] !== undefined) return;
    const came = await orNothing(taking.signal, take);
    became = {
      ...became,
      [list]: { ...became[list], [key]: came?.id ?? null },
      fresh: came?.isNew ? [...became.fresh, came.id] : became.fresh,
    };
    await context.db.update(inheritedPages).set({ became }).where(eq(inheritedPages.id, row.id));
  };
  for (const [at, file] of reading.files.entries()) {
    const fact = facts.files[at];
    const where = facts.where[at] ?? file.address;
    await each('files', `${at}`, `Taking ${fileNameOf(file)}`, async () => {
      if (!fact) return null;
      return fact.held === null
        ? takePicture(taking, file, { where, isOurs: before.isOurs, alt: altSaid(taking, before, at) })
        : { id: fact.held, isNew: false };
    });
  }
  for (const [at, { embed }] of reading.embeds.entries())
    await each('embeds', `${at}`, 'Asking what is embedded', async () => {
      const own = await ownFilm(taking, embed);
      if (own) return own;
      const wish = { folder: '', person: taking.person, now: new Date() };
      const { row: kept, isNew } = await keepEmbed(context, embed, wish, taking.signal);
      return { id: kept.id, isNew };
    });
  for (const { address } of reading.documents)
    await each('documents', address, `Taking ${fileNameOf({ address })}`, () =>
      fetched(taking, { address, statements: [] }, address),
    );
  await report(of, of, 'Making the page');
  return became;
}

interface Came {
  readonly id: string;
  readonly isNew: boolean;
}

/** A film or a recording that lies as a file is the house's own: its file is taken in. Null for what a host plays, and for a file that cannot be had. */
async function ownFilm(taking: Taking, { host, carrier, address }: Embed): Promise<Came | null> {
  if (host !== null || (carrier !== 'video' && carrier !== 'audio')) return null;
  return orNothing(taking.signal, () => fetched(taking, { address, statements: [] }, address));
}

/** One that cannot be had keeps none of the others out: it is missing on the page, and the page says so. */
async function orNothing(signal: AbortSignal, take: () => Promise<Came | null>): Promise<Came | null> {
  try {
    return await take();
  } catch (error) {
    if (!signal.aborted && (error instanceof OutboundProblem || error instanceof HttpProblem)) return null;
    throw error;
  }
}

async function fetched(
  { context, row, rules, person, signal }: Taking,
  { address, statements }: Pick<InheritedFile, 'address' | 'statements'>,
  where: string,
): Promise<Came & { readonly row: AssetRow }> {
  const picture = {
    ...plainPicture(where),
    fileName: fileNameOf({ address }) || 'picture',
    pageAddress: row.address === null ? '' : row.base,
    statements: [...statements],
  };
  const wish = { pageId: null, wantId: null, folder: '', licence: null, namedBy: rules };
  const { row: taken, isNew } = await fetchAndTake(context, picture, wish, person.id, signal);
  // A process that ended after it was taken in, and before that was written down, took it in all the same.
  const since = new Date(row.became?.since ?? 0);
  const isOwn = taken.createdBy === person.id && taken.createdAt.getTime() >= since.getTime();
  return { id: taken.id, isNew: isNew || isOwn, row: taken };
}

async function takePicture(
  taking: Taking,
  file: InheritedFile,
  { where, isOurs, alt }: { readonly where: string; readonly isOurs: boolean; readonly alt: Alt | undefined },
): Promise<Came> {
  const came = await fetched(taking, file, where);
  const isUnknown = readLicence(file.statements).kind !== 'clear' && came.row.label.licence === 'unknown';
  const { context, person } = taking;
  // What was said before it came in is said of the piece, for every page that it will stand on.
  const label: LabelPatch = {
    ...(isOurs && isUnknown ? { licence: 'own' } : {}),
    ...(alt && came.row.label.alt.kind === 'unsaid' ? { alt } : {}),
  };
  if (came.isNew && Object.keys(label).length > 0)
    await changeAsset(context, came.id, came.row.version, { label }, person, new Date());
  return came;
}

/** What was said of the first use of a file. */
const altSaid = ({ reading }: Taking, { wishes }: StoredBecame, file: number): Alt | undefined =>
  reading.uses.flatMap((use, at) => (use.file === file ? (wishes.alts?.[at] ?? []) : [])).at(0);

async function makePage(taking: Taking, became: StoredBecame): Promise<void> {
  const { context, row, reading, facts, rules, person } = taking;
  const pieces = await piecesOf(context.db, reading, became);
  const page = (mends: boolean): PageDoc =>
    toPage(reading, facts, pieces, rules, { ...became.wishes, mends }, () => crypto.randomUUID());
  const pageId = row.pageId ?? row.id;
  const now = new Date();
  const asRead = page(false);
  const isMended = became.wishes.mends;
  const doc = isMended ? page(true) : asRead;
  const version = isMended ? 2 : 1;
  await context.db.transaction(async (tx) => {
    const title = doc.title;
    const made = {
      id: pageId,
      targetId: row.targetId,
      title,
      doc,
      version,
      createdAt: now,
      updatedAt: now,
      updatedBy: person.id,
    };
    const [begun] = await tx.insert(pages).ignore().values(made);
    if (begun.affectedRows > 0) {
      await indexPlacements(tx, pageId, doc);
      if (isMended)
        await tx.insert(pageVersions).ignore().values({
          id: row.id,
          pageId,
          doc: asRead,
          name: 'As it was brought in',
          createdAt: now,
          createdBy: person.id,
        });
      const change = { personId: person.id, subject: 'page', subjectId: pageId } as const;
      const read = toStored(STORED.page, asRead);
      await writeActivity(tx, { ...change, what: 'brought it in', before: null, after: read }, now);
      if (isMended)
        await writeActivity(
          tx,
          { ...change, what: 'mended all that is safe', before: read, after: toStored(STORED.page, doc) },
          now,
        );
    }
    await tx
      .update(inheritedPages)
      .set({ state: 'in', pageId, pageVersion: version, words: '' })
      .where(eq(inheritedPages.id, row.id));
  });
}

/** What the pieces say of themselves, so that the page repeats none of it. */
async function piecesOf(db: Queries, { files, embeds }: Inherited, became: StoredBecame): Promise<Became> {
  const ids = Object.values(became.files).flatMap((assetId) => assetId ?? []);
  const rows =
    ids.length === 0
      ? []
      : await db.select({ id: held.id, label: held.label }).from(held).where(inArray(held.id, ids));
  const said = new Map(rows.map(({ id, label }) => [id, { id, alt: label.alt, caption: label.caption }]));
  return {
    files: files.map((_, at) => said.get(became.files[`${at}`] ?? '') ?? null),
    embeds: embeds.map((_, at) => became.embeds[`${at}`] ?? null),
    documents: Object.fromEntries(
      Object.entries(became.documents).flatMap(([address, id]) => (id === null ? [] : [[address, id]])),
    ),
  };
}
