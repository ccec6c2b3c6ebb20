import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { FileFact, LinkFact } from '#core/inherited/facts.ts';
import type { Inherited, InheritedFile, InheritedLink } from '#core/inherited/reading.ts';
import { isVagueLink } from '#core/words/vague-link.ts';
import { eachAtMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import { inheritedPages, people } from '../db/schema.ts';
import type { StoredFacts } from '../db/tables/inherited.ts';
import { readHosts } from '../embeds/hosts.ts';
import { ForeignProblem, sayForeignFault } from '../foreign/problem.ts';
import { isInline, keepInline, readInline } from '../gather/inline-files.ts';
import { pageText } from '../gather/page-text.ts';
import { farLook } from '../gather/preview.ts';
import { isPage } from '../gather/read-address.ts';
import type { JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { linkState } from '../outbound/link-state.ts';
import type { Probed } from '../outbound/outbound.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { retry } from '../outbound/retry.ts';
import { presentPerson } from '../people/guard.ts';
import { HttpProblem } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import { alikeRows } from '../shelf/lookalikes.ts';
import { pathInZip } from './unpack.ts';

export const READ_INHERITED = 'read-inherited';

/** Pages that one job works on, one after the other. */
export const InheritedJobSchema = v.strictObject({ inheritedIds: v.array(v.string()) });
export type InheritedRow = typeof inheritedPages.$inferSelect;

/** A page of 5 MB is a very long one. With pictures written into it, it is larger. */
const PAGE_LIMITS = { bytes: 15_000_000, millis: 30_000 };
const SHEET_LIMITS = { bytes: 500_000, millis: 8000 };
const MOST_SHEETS = 8;
/** Enough of a picture to know its size. */
const START_LIMITS = { bytes: 160_000, millis: 8000 };
const AT_ONCE = 6;
const PATIENCE = { tries: 3, firstWaitMillis: 500, longestWaitMillis: 5000 };

/**
 * The job behind "Read it": each document is fetched and read in a process that can be killed, then each of its pictures is looked
 * at, and each of its links is asked. Nothing is taken in by it. A page that cannot be read keeps none of the others from it.
 */
export async function readInheritedPages(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const { inheritedIds } = v.parse(InheritedJobSchema, job.input);
  return eachPage(context, inheritedIds, tools, {
    isDone: ({ state }) => state !== 'reading',
    work: look,
    says: 'read',
  });
}

interface PageWork {
  /** Whether an earlier attempt did it already. */
  readonly isDone: (row: InheritedRow) => boolean;
  readonly work: (context: Context, row: InheritedRow, tools: JobTools) => Promise<void>;
  /** What was done, in a word. */
  readonly says: string;
}

/** Works on pages one after the other; what keeps one back is written to it, and the next is gone on with. */
export async function eachPage(
  context: Context,
  ids: readonly string[],
  tools: JobTools,
  { isDone, work, says }: PageWork,
): Promise<JobResult> {
  let [done, failed] = [0, ''];
  for (const [at, id] of ids.entries()) {
    const [row] = await context.db.select().from(inheritedPages).where(eq(inheritedPages.id, id));
    if (!row || isDone(row)) {
      done += 1;
      continue;
    }
    try {
      await work(context, row, ids.length === 1 ? tools : withinAll(tools, at, ids.length));
      done += 1;
    } catch (error) {
      const words = wordsOf(error);
      if (words === null || tools.signal.aborted) throw error;
      await keep(context, row, { words });
      failed = words;
    }
  }
  if (failed === '') return { words: ids.length === 1 ? `It is ${says}` : `${ids.length} pages are ${says}` };
  if (ids.length === 1) return { state: 'failed', words: failed };
  const others = `${done} of ${ids.length} are ${says}; the others say why not, and can be tried again`;
  return { state: 'failed', words: `${others}.` };
}

/** Of many pages, how many are done is told, and not each step of each. */
const withinAll = ({ signal, report }: JobTools, at: number, of: number): JobTools => ({
  signal,
  report: (_done, _of, words) => report(at, of, words),
});

function wordsOf(error: unknown): string | null {
  if (error instanceof OutboundProblem || error instanceof HttpProblem) return error.message.slice(0, 500);
  return error instanceof ForeignProblem && error.fault !== 'stopped'
    ? `This page ${sayForeignFault(error.fault)}. Nothing of it was taken.`
    : null;
}

async function look(context: Context, before: InheritedRow, { report, signal }: JobTools): Promise<void> {
  await report(0, 1, 'Fetching the page');
  const row = before.html === null ? await fetched(context, before, signal) : before;
  const html = row.html ?? '';
  const [{ rules }, hosts] = await Promise.all([readTarget(context, row.targetId), readHosts(context)]);
  const css = await sheetsOf(context, row, signal);
  const reading = await context.texts.inherited(
    { html, css: css.text, base: row.base, hosts, language: rules.language },
    signal,
  );
  const of = reading.files.length + reading.links.length;
  let done = 0;
  const step = (words: string) => report(Math.min(of, ++done), of, words);
  await report(0, of, 'Looking at its pictures');
  const files = await filesOf(context, row, reading, () => step('Looking at its pictures'), signal);
  const links = await linksOf(context, reading, () => step('Asking its links'), signal);
  const facts: StoredFacts = {
    files: files.map(({ fact }) => fact),
    where: files.map(({ where }) => where),
    links,
  };
  const bytes = Buffer.byteLength(html) + css.bytes + files.reduce((sum, file) => sum + file.bytes, 0);
  await keep(context, row, {
    reading: withEncoding(reading, row.encoding),
    facts,
    bytes,
    state: 'read',
    words: '',
  });
}

const withEncoding = (reading: Inherited, encoding: string): Inherited =>
  encoding === ''
    ? reading
    : { ...reading, faults: [...reading.faults, { code: 'encoding', values: { encoding }, spots: [] }] };

async function keep(
  { db }: Context,
  { id }: InheritedRow,
  what: Partial<typeof inheritedPages.$inferInsert>,
): Promise<void> {
  await db.update(inheritedPages).set(what).where(eq(inheritedPages.id, id));
}

async function fetched(context: Context, row: InheritedRow, signal: AbortSignal): Promise<InheritedRow> {
  const address = row.address ?? '';
  const page = await retry(PATIENCE, signal, () =>
    context.outbound.read(address, { limits: PAGE_LIMITS, accept: 'text/html', signal }),
  );
  const { text, encoding, isSaid } = pageText(page.bytes, page.headers['content-type']);
  if (!isPage(Buffer.from(text.slice(0, 8192))))
    throw new HttpProblem(415, 'What stands at this address is no page of HTML. Nothing was taken.');
  const known = { html: text, base: page.address, encoding: isSaid ? '' : encoding };
  await keep(context, row, known);
  return { ...row, ...known };
}

/** The text of the style sheets that it names; one that cannot be had says nothing. */
async function sheetsOf(
  context: Context,
  { html, base }: InheritedRow,
  signal: AbortSignal,
): Promise<{ readonly text: string; readonly bytes: number }> {
  const named = await context.texts.linkedAs({ html: html ?? '', relation: 'stylesheet' }, signal);
  const addresses = named.flatMap((href) => (URL.canParse(href, base) ? [new URL(href, base).href] : []));
  const sheets = await Promise.all(
    addresses.slice(0, MOST_SHEETS).map(async (address) => {
      const answer = await asked(
        context.outbound.read(address, { limits: SHEET_LIMITS, accept: 'text/css', signal }),
      );
      return answer ? answer.bytes.toString('utf8') : '';
    }),
  );
  const text = sheets.join('\n');
  return { text, bytes: Buffer.byteLength(text) };
}

/** What was answered, or null for what did not answer well. */
async function asked<T>(answer: Promise<T>): Promise<T | null> {
  return answer.catch((error: unknown) => {
    if (error instanceof OutboundProblem && error.fault !== 'stopped') return null;
    throw error;
  });
}

interface FileLooked {
  readonly where: string;
  readonly fact: FileFact | null;
  readonly bytes: number;
}

async function filesOf(
  context: Context,
  row: InheritedRow,
  { files }: Inherited,
  step: () => Promise<void>,
  signal: AbortSignal,
): Promise<readonly FileLooked[]> {
  const looked: FileLooked[] = [];
  await eachAtMost(AT_ONCE, [...files.entries()], async ([at, file]) => {
    looked[at] = await lookAtFile(context, row, file, signal);
    await step();
  });
  return looked;
}

async function lookAtFile(
  context: Context,
  row: InheritedRow,
  file: InheritedFile,
  signal: AbortSignal,
): Promise<FileLooked> {
  const where = await whereOf(context, row, file);
  if (where === null) return { where: file.address, fact: null, bytes: 0 };
  const size = await sizeOf(context, where, row.base, signal);
  if (!size) return { where, fact: null, bytes: 0 };
  const held = await heldLike(context, row, where, size);
  return { where, fact: { size: { width: size.width, height: size.height }, held }, bytes: size.bytes };
}

/** Where a file is fetched: out there, or where it was kept as it was handed in; null for one that was not. */
async function whereOf(context: Context, { beside }: InheritedRow, { address }: InheritedFile) {
  if (address.startsWith('data:')) return keepInline(context, address);
  const path = pathInZip(address);
  return path === null ? address : (beside?.[path] ?? null);
}

interface Sized {
  readonly width: number;
  readonly height: number;
  readonly bytes: number;
}

async function sizeOf(
  context: Context,
  where: string,
  page: string,
  signal: AbortSignal,
): Promise<Sized | null> {
  try {
    if (isInline(where)) {
      const bytes = await readInline(context, where);
      return { ...(await context.pictures.size(bytes, signal)), bytes: bytes.length };
    }
    const start = await context.outbound.peek(where, { limits: START_LIMITS, referrer: page, signal });
    const said = Number(start.headers['content-length']);
    const size = await context.pictures.size(start.bytes, signal);
    return { ...size, bytes: Number.isFinite(said) && said > 0 ? said : start.bytes.length };
  } catch (error) {
    // Whatever it is, it is no picture that could be shown: the page says so.
    if (signal.aborted) throw error;
    return null;
  }
}

/** Shapes that differ by less are one shape: a smaller file of a picture has rounded edges. */
const SAME_SHAPE = 0.02;

/** The piece of the shelf that shows the same in the same shape, and is no smaller. */
async function heldLike(
  context: Context,
  { personId, base }: InheritedRow,
  where: string,
  { width, height }: Sized,
): Promise<string | null> {
  const [person] = await context.db.select().from(people).where(eq(people.id, personId));
  if (!person) return null;
  try {
    const look = await farLook(context, { address: where, page: base });
    const alike = await alikeRows(context, look, presentPerson(person));
    const same = alike.find(
      ({ row }) =>
        row.kind === 'picture' &&
        row.widthPx >= width &&
        Math.abs(row.widthPx / row.heightPx / (width / height) - 1) < SAME_SHAPE,
    );
    return same?.row.id ?? null;
  } catch (error) {
    if (!(error instanceof OutboundProblem))
      context.log.warn({ err: error }, 'a picture could not be compared');
    return null;
  }
}

async function linksOf(
  context: Context,
  { links }: Inherited,
  step: () => Promise<void>,
  signal: AbortSignal,
): Promise<Readonly<Record<string, LinkFact>>> {
  const known: Record<string, LinkFact> = {};
  await eachAtMost(AT_ONCE, links, async (link) => {
    const fact = await linkFact(context, link, signal);
    if (fact) known[link.address] = fact;
    await step();
  });
  return known;
}

/** What a link leads to; null where that cannot be told now, which is no reason to call it dead. */
async function linkFact(
  context: Context,
  { address, words }: InheritedLink,
  signal: AbortSignal,
): Promise<LinkFact | null> {
  const found = await linkState(context.outbound, address, signal);
  if (!found) return null;
  if (found.state === 'dead' || found.state === 'unknown-host') return { state: 'dead' };
  const { answer } = found;
  const title = isVagueLink(words) ? await titleAt(context, answer, signal) : '';
  return found.state === 'moved' ? { state: 'moved', to: answer.address, title } : { state: 'fine', title };
}

async function titleAt(
  context: Context,
  { bytes, headers }: Pick<Probed, 'bytes' | 'headers'>,
  signal: AbortSignal,
): Promise<string> {
  const { text } = pageText(bytes, headers['content-type']);
  const title = await context.texts.headline(text, signal).catch(() => '');
  return title.slice(0, 200);
}
