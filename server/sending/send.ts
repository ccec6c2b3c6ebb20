import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { and, desc, eq, inArray, isNotNull, ne } from 'drizzle-orm';
import * as v from 'valibot';
import { htmlFor } from '#core/deliver/sending.ts';
import { CUT_FORMATS } from '#core/media/formats.ts';
import { filesOfPage } from '#core/page/files-of-page.ts';
import { firstSeen, teaserOf } from '#core/page/lead.ts';
import { headTitleOf } from '#core/page/page-head.ts';
import { planPicture } from '#core/page/picture.ts';
import type { HouseRules } from '#core/page/target.ts';
import { standingsOf } from '#core/page/walk.ts';
import { altHere } from '#core/page/words.ts';
import { cutsOfPage, writeFragment } from '#core/page/write.ts';
import { eachAtMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import { deliveries, sentFiles } from '../db/schema.ts';
import { cutGoingOut } from '../deliver/bundle.ts';
import { placedAssets } from '../deliver/placed.ts';
import { tellSent } from '../deliver/take-away.ts';
import { filesOfRow } from '../films/files-out.ts';
import type { JobRow } from '../jobs/queue.ts';
import { seldom } from '../jobs/seldom.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { OutboundProblem } from '../outbound/problem.ts';
import { retry } from '../outbound/retry.ts';
import { assertMayGoOut } from '../pages/gate.ts';
import { outgoing } from '../pages/proof.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { HttpProblem } from '../problem.ts';
import { keepNamesOut } from '../shelf/names-out.ts';
import { wayOf } from './door.ts';
import { noteShown } from './public-files.ts';
import { readBack } from './read-back.ts';
import { type FileToSend, type PageToSend, SendProblem, type Way } from './way.ts';

export const SEND = 'send';

const SendSchema = v.strictObject({ deliveryId: v.string() });
type DeliveryRow = typeof deliveries.$inferSelect;

/**
 * The job behind "Send": files first, the page last, then what stands there is read back. Each step is done once, however often
 * it is begun: a file that the target has is not sent again, and a page that was handed over without an answer is looked for there
 * before it is handed over again.
 */
export async function send(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const { deliveryId } = v.parse(SendSchema, job.input);
  const [row] = await context.db.select().from(deliveries).where(eq(deliveries.id, deliveryId));
  if (!row) throw new HttpProblem(404, 'The page that was to be sent is not here any more.');
  try {
    const state =
      row.state === 'out' || row.state === 'ready' ? row.state : await sendPage(context, row, tools);
    if (state === 'ready') return { words: 'Its files answer, and its code is ready to be pasted.' };
    await tools.report(1, 1, 'Reading it back');
    const { words } = await readBack(context, deliveryId, tools.signal);
    return { words };
  } catch (error) {
    const isTheirs = error instanceof SendProblem || error instanceof OutboundProblem;
    if (!isTheirs || tools.signal.aborted) throw error;
    await context.db
      .update(deliveries)
      .set({ words: error.message.slice(0, 500) })
      .where(eq(deliveries.id, row.id));
    return { state: 'failed', words: error.message };
  }
}

/** Answers whether it is out, or ready for a person to put it where it stands. */
async function sendPage(context: Context, row: DeliveryRow, tools: JobTools): Promise<'out' | 'ready'> {
  const whole = await readPage(context, row.pageId, 'house', row.targetId);
  assertMayGoOut(whole, 'house');
  const way = await wayOf(context, row.targetId, whole.rules, tools.signal);
  try {
    return await sendBy(context, row, whole, way, tools);
  } finally {
    await way.close?.();
  }
}

async function sendBy(
  context: Context,
  row: DeliveryRow,
  whole: WholePage,
  way: Way,
  tools: JobTools,
): Promise<'out' | 'ready'> {
  const files = await sendFiles(context, whole, way, tools);
  const page = pageToSend(row, whole, files);
  const uid = page.uid;
  const before = await standsAt(context, row);
  const isAsked = before === null && (await wasHanded(context, row));
  await context.db
    .update(deliveries)
    .set({
      html: page.html,
      title: page.title,
      teaser: { summary: page.summary, photo: page.photo },
      state: 'handing',
    })
    .where(eq(deliveries.id, row.id));
  if (!(await noteShown(context.db, row.id, page.html))) await sendFiles(context, whole, way, tools);
  await keepNamesOut(context, placedAssets(whole), new Date());
  const known = before ?? (isAsked ? await way.find(uid) : null);
  const address = await way.putPage(page, known);
  const state = address === null ? 'ready' : 'out';
  // Told before it counts as out: broken off in between, it is told twice rather than never.
  await tellSent(context, whole, row.personId, `to the ${whole.rules.name}`, 'sent-out');
  await context.db.update(deliveries).set({ address, state, words: '' }).where(eq(deliveries.id, row.id));
  return state;
}

/** Where this page stands on this target since it was sent before; null where it does not. */
async function standsAt({ db }: Context, { id, pageId, targetId }: DeliveryRow): Promise<string | null> {
  const [last] = await db
    .select({ state: deliveries.state, address: deliveries.address })
    .from(deliveries)
    .where(
      and(
        eq(deliveries.pageId, pageId),
        eq(deliveries.targetId, targetId),
        ne(deliveries.id, id),
        isNotNull(deliveries.address),
      ),
    )
    .orderBy(desc(deliveries.at))
    .limit(1);
  return last?.state === 'out' ? last.address : null;
}

/** While one is sent the next is made. */
const FILES_AT_ONCE = 3;
/** A file that comes there twice is only stored twice. */
const PATIENCE = { tries: 4, firstWaitMillis: 500, longestWaitMillis: 10_000 };

/** Whether this page was handed to this target before without anybody hearing what became of it, by this sending or another. */
async function wasHanded({ db }: Context, { pageId, targetId }: DeliveryRow): Promise<boolean> {
  const isIt = and(
    eq(deliveries.pageId, pageId),
    eq(deliveries.targetId, targetId),
    eq(deliveries.state, 'handing'),
  );
  const [one] = await db.select({ id: deliveries.id }).from(deliveries).where(isIt).limit(1);
  return one !== undefined;
}

/** Where each file of the page is found on the target, by its name. */
type Addresses = ReadonlyMap<string, string>;

async function sendFiles(
  context: Context,
  whole: WholePage,
  way: Way,
  { report, signal }: JobTools,
): Promise<Addresses> {
  const cuts = cutsOfPage(whole.doc, outgoing(whole));
  const asked = filesOfPage(whole.doc, outgoing(whole));
  const rows = await Promise.all(placedAssets(whole).map((row) => filesOfRow(context, row)));
  const files = rows.flat().filter(({ name }) => asked.has(name));
  const all = cuts.length + files.length;
  const addresses = new Map<string, string>();
  const place = placeOf(context, whole.rules);
  const known = await knownThere(context, place, [
    ...cuts.map(({ fileName }) => fileName),
    ...files.map(({ name }) => name),
  ]);
  const tell = seldom(report, signal);
  const sent = async (file: FileToSend) => {
    await tell(addresses.size, all, `Sending ${file.name}`);
    addresses.set(file.name, await sendOnce(context, { place, known, way, signal }, file));
  };
  await eachAtMost(FILES_AT_ONCE, cuts, async (cut) => {
    await tell(addresses.size, all, `Making ${cut.fileName}`);
    const bytes = await readFile(await cutGoingOut(context, whole, cut));
    await sent({ name: cut.fileName, type: CUT_FORMATS[cut.format].mime, bytes });
  });
  for (const { name, mime, from } of files)
    await sent({
      name,
      type: mime,
      bytes: 'text' in from ? Buffer.from(from.text, 'utf8') : await context.storage.read(from.key),
    });
  return addresses;
}

const placeOf = (
  { config }: Pick<Context, 'config'>,
  { sending, siteAddress }: Pick<HouseRules, 'sending' | 'siteAddress'>,
) => {
  const { by, address, host, bucket, folder, publicAddress } = sending;
  if (by === 'paste') return `paste ${config.publicOrigin ?? ''}`.slice(0, 300);
  return [by, address || host || siteAddress, bucket, folder, publicAddress]
    .filter(Boolean)
    .join(' ')
    .slice(0, 300);
};

/** What a place has already, by name and content: where it is found there. */
type KnownThere = ReadonlyMap<string, string>;
const keyOf = (name: string, sha256: string) => `${sha256} ${name}`;
const NAMES_AT_A_TIME = 500;

/** Asked once for all files of a page: a question for each would take as long as sending it. */
async function knownThere({ db }: Context, place: string, names: readonly string[]): Promise<KnownThere> {
  const known = new Map<string, string>();
  for (let from = 0; from < names.length; from += NAMES_AT_A_TIME) {
    const some = names.slice(from, from + NAMES_AT_A_TIME);
    const rows = await db
      .select()
      .from(sentFiles)
      .where(and(eq(sentFiles.place, place), inArray(sentFiles.name, some)));
    for (const { name, sha256, address } of rows) known.set(keyOf(name, sha256), address);
  }
  return known;
}

interface Going {
  readonly place: string;
  readonly known: KnownThere;
  readonly way: Way;
  readonly signal: AbortSignal;
}

/** A file that this target has under this name already is not sent again. */
async function sendOnce(
  { db }: Context,
  { place, known, way, signal }: Going,
  file: FileToSend,
): Promise<string> {
  const sha256 = createHash('sha256').update(file.bytes).digest('hex');
  const there = known.get(keyOf(file.name, sha256));
  if (there !== undefined) return there;
  const address = await retry(PATIENCE, signal, () => way.putFile(file));
  await db.insert(sentFiles).ignore().values({ place, sha256, name: file.name, address, at: new Date() });
  return address;
}

/** The page in the words and addresses of its target; its title goes apart, and its styles in the HTML itself. */
function pageToSend(row: DeliveryRow, whole: WholePage, files: Addresses): PageToSend {
  const { doc, rules } = whole;
  const going = {
    ...outgoing(whole),
    addressOf: ({ fileName }: { readonly fileName: string }) => files.get(fileName) ?? '',
    fileOf: (fileName: string) => files.get(fileName) ?? '',
    isInline: true,
    withoutTitle: true,
  };
  return {
    uid: `urn:uuid:${row.pageId}`,
    title: headTitleOf(doc) || row.title,
    html: htmlFor(rules.sending, writeFragment(doc, going)),
    summary: teaserOf(doc)?.attrs.words || (doc.summary?.trim() ?? ''),
    photo: photoOf(whole, files),
  };
}

/** What a listing shows: the teaser's picture, else the first of the page, in the file that any browser shows. */
function photoOf(whole: WholePage, files: Addresses): PageToSend['photo'] {
  const { doc, rules, pieces } = whole;
  const placement =
    teaserOf(doc)?.content?.find((block) => block.type === 'placement')?.attrs ?? firstSeen(doc);
  const piece = placement ? pieces.get(placement.asset) : undefined;
  const standing = standingsOf(doc, whole).find((one) => one.placement.id === placement?.id);
  if (!placement || !standing || piece?.kind !== 'picture') return null;
  const address = files.get(planPicture(rules, standing, piece).fallback.fileName);
  if (address === undefined) return null;
  const alt = altHere(rules, placement, piece);
  return { address, alt: alt.kind === 'text' ? alt.text : '' };
}
