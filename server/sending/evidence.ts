import { createHash } from 'node:crypto';
import { mkdir, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { and, asc, desc, eq, inArray, isNotNull, lte } from 'drizzle-orm';
import * as v from 'valibot';
import type { Person } from '#api/people.ts';
import { pageDocument } from '#core/deliver/page-document.ts';
import { usesOf } from '#core/page/linked.ts';
import type { PageDoc } from '#core/page/model.ts';
import type { Context } from '../context.ts';
import { activity, audit, deliveries, held, pageVersions, people, provenance } from '../db/schema.ts';
import { addJob, type JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { HttpProblem, notFound } from '../problem.ts';
import { readTarget } from '../rules/store.ts';
import type { AssetRow } from '../shelf/present.ts';
import { bundleKey, originalKey } from '../storage/storage.ts';
import { workFolder } from '../work-folder.ts';
import { zipFolder } from '../zip.ts';
import { signedByHouse } from './seal-evidence.ts';

export const EVIDENCE = 'evidence';

const EvidenceSchema = v.strictObject({ deliveryId: v.string() });
type DeliveryRow = typeof deliveries.$inferSelect;

/** Orders what was live by a sending to be packed, as it can be handed over in a dispute. */
export async function orderEvidence(
  context: Context,
  deliveryId: string,
  person: Person,
  now: Date,
): Promise<string> {
  const [row] = await context.db.select().from(deliveries).where(eq(deliveries.id, deliveryId));
  if (!row) throw notFound('What was sent');
  if (row.html === null || row.address === null)
    throw new HttpProblem(409, 'This sending never came out, so nothing of it was live.');
  const title = `${row.title}, as it was live`;
  return addJob(context, { kind: EVIDENCE, title, input: { deliveryId }, personId: person.id }, now);
}

/**
 * The job behind "Pack it as evidence": the page as it was sent and as it was found, its pieces with their originals, what their
 * labels said on that day and who said so, in a ZIP whose list of files is signed by the house.
 */
export async function packEvidence(context: Context, job: JobRow, { report }: JobTools): Promise<JobResult> {
  const { deliveryId } = v.parse(EvidenceSchema, job.input);
  const [row] = await context.db.select().from(deliveries).where(eq(deliveries.id, deliveryId));
  if (!row?.html) throw notFound('What was sent');
  const folder = await workFolder(context);
  try {
    const files = join(folder, 'evidence');
    await mkdir(join(files, 'originals'), { recursive: true });
    await report(0, 1, 'Collecting what was live');
    await writePage(context, row, row.html, files);
    const pieces = await piecesOf(context, row);
    for (const [at, piece] of pieces.entries()) {
      await report(at, pieces.length, `Packing ${piece.stem}`);
      const name = `${piece.stem}.${piece.extension}`;
      await writeFile(join(files, 'originals', name), await context.storage.read(originalKey(piece.sha256)));
    }
    await writeJson(join(files, 'pieces.json'), await saidOf(context, row, pieces));
    await writeJson(join(files, 'log.json'), await logOf(context, row));
    const count = await seal(context, row, files);
    const zip = join(folder, 'evidence.zip');
    await zipFolder(files, zip);
    const resultKey = bundleKey(job.id);
    await context.storage.take(resultKey, zip);
    const { size } = await stat(zip);
    await report(pieces.length, pieces.length, 'Packed');
    return { words: `${count} files, signed`, resultKey, resultBytes: size };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const writeJson = (path: string, value: unknown) => writeFile(path, `${JSON.stringify(value, null, 2)}\n`);

async function writePage(context: Context, row: DeliveryRow, html: string, files: string): Promise<void> {
  const { rules } = await readTarget(context, row.targetId);
  const page = { uid: `urn:uuid:${row.pageId}`, title: row.title, summary: '', html };
  await writeFile(join(files, 'page-as-sent.html'), pageDocument(page, rules.language));
  if (row.found !== null) await writeFile(join(files, 'page-as-found.html'), row.found);
  const [by] = await context.db.select({ name: people.name }).from(people).where(eq(people.id, row.personId));
  await writeJson(join(files, 'sending.json'), {
    page: row.pageId,
    title: row.title,
    target: rules.name,
    address: row.address,
    sentAt: row.at.toISOString(),
    sentBy: by?.name ?? null,
    state: row.state,
    foundAt: row.foundAt?.toISOString() ?? null,
    differences: row.compared,
    houseRules: rules,
  });
}

/** The pieces of the state that went out: the one that was kept when it did. */
async function piecesOf({ db }: Context, row: DeliveryRow): Promise<readonly AssetRow[]> {
  const doc = await docAt(db, row);
  const ids = doc ? [...new Set(usesOf(doc).map(({ asset }) => asset))] : [];
  return ids.length === 0 ? [] : db.select().from(held).where(inArray(held.id, ids)).orderBy(asc(held.stem));
}

async function docAt(db: Context['db'], row: DeliveryRow): Promise<PageDoc | null> {
  const kept = await db
    .select({ doc: pageVersions.doc, at: pageVersions.createdAt })
    .from(pageVersions)
    .where(and(eq(pageVersions.pageId, row.pageId), isNotNull(pageVersions.sentAt)))
    .orderBy(asc(pageVersions.createdAt));
  // It was kept as the page came out, which is after it was ordered; of those since, the first.
  return (kept.find(({ at }) => at >= row.at) ?? kept.at(-1))?.doc ?? null;
}

/** What was known of each piece on that day: its label as it was, where its file came from, and who said what. */
async function saidOf({ db }: Context, row: DeliveryRow, pieces: readonly AssetRow[]): Promise<unknown> {
  const ids = pieces.map(({ id }) => id);
  if (ids.length === 0) return [];
  const changes = await db
    .select()
    .from(activity)
    .where(and(eq(activity.subject, 'asset'), inArray(activity.subjectId, ids), lte(activity.at, row.at)))
    .orderBy(desc(activity.id));
  const came = await db.select().from(provenance).where(inArray(provenance.assetId, ids));
  const names = new Map(
    (await db.select({ id: people.id, name: people.name }).from(people)).map((one) => [one.id, one.name]),
  );
  const who = (id: string) => names.get(id) ?? 'somebody who left';
  return pieces.map((piece) => {
    const own = changes.filter(({ subjectId }) => subjectId === piece.id);
    return {
      name: `${piece.stem}.${piece.extension}`,
      sha256: piece.sha256,
      labelThen: own.map(({ after }) => labelIn(after)).find((label) => label !== null) ?? piece.label,
      labelNow: piece.label,
      history: own.map(({ at, personId, what }) => ({ at: at.toISOString(), by: who(personId), what })),
      cameFrom: came
        .filter(({ assetId }) => assetId === piece.id)
        .map(({ at, personId, way, address, pageAddress, fileName, said }) => ({
          at: at.toISOString(),
          by: who(personId),
          way,
          address,
          pageAddress,
          fileName,
          said,
        })),
    };
  });
}

/** The label in what a change left behind; null for a change of something else. */
function labelIn(after: unknown): unknown {
  return typeof after === 'object' && after !== null && 'label' in after ? after.label : null;
}

async function logOf({ db }: Context, { title }: DeliveryRow): Promise<unknown> {
  const lines = await db.select().from(audit).where(eq(audit.subject, title)).orderBy(asc(audit.id));
  return lines.map(({ at, who, what, detail }) => ({ at: at.toISOString(), who, what, detail }));
}

const READ_ME = `What was live, packed by the house that published it.

page-as-sent.html   the page as it was handed over
page-as-found.html  the document that its address answered when it was read back
sending.json        when, by whom, where to, and the rules of the target
pieces.json         what was known of each picture on that day, and who said so
originals/          the files that the pictures were made from
log.json            what the house wrote down of the page
manifest.json       all of these files, each by its SHA-256

The list is signed (Ed25519, RFC 8032). Anybody can verify it:

    openssl pkeyutl -verify -pubin -inkey public-key.pem -rawin -in manifest.json -sigfile manifest.sig
`;

/** Lists all files by their content, and signs the list; answers how many there are. */
async function seal(context: Context, row: DeliveryRow, files: string): Promise<number> {
  await writeFile(join(files, 'README.txt'), READ_ME);
  const names = (await readdir(files, { recursive: true, withFileTypes: true }))
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name).slice(files.length + 1))
    .sort();
  const listed = await Promise.all(
    names.map(async (name) => {
      const bytes = await readFile(join(files, name));
      return { name, bytes: bytes.length, sha256: createHash('sha256').update(bytes).digest('hex') };
    }),
  );
  const manifest = Buffer.from(
    `${JSON.stringify({ page: row.title, address: row.address, sentAt: row.at.toISOString(), packedAt: new Date().toISOString(), files: listed }, null, 2)}\n`,
  );
  const { signature, publicKey } = signedByHouse(context, manifest);
  await writeFile(join(files, 'manifest.json'), manifest);
  await writeFile(join(files, 'manifest.sig'), signature);
  await writeFile(join(files, 'public-key.pem'), publicKey);
  return listed.length;
}
