import { mkdir, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import * as v from 'valibot';
import { writeAudit } from '../audit.ts';
import type { Context } from '../context.ts';
import { people } from '../db/schema.ts';
import type { JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { assertMayGoOut } from '../pages/gate.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { keepVersion } from '../pages/versions.ts';
import { keepNamesOut } from '../shelf/names-out.ts';
import { bundleKey } from '../storage/storage.ts';
import { workFolder } from '../work-folder.ts';
import { zipFolder } from '../zip.ts';
import { writeBundle } from './bundle.ts';
import { placedAssets } from './placed.ts';

export const TAKE_AWAY = 'take-away';

const TakeAwaySchema = v.strictObject({ pageId: v.string() });

/** The job behind "Take away": the page's bundle as a ZIP. Safe to run again: cuts that are made are not made twice. */
export async function takeAway(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const { pageId } = v.parse(TakeAwaySchema, job.input);
  const whole = await readPage(context, pageId, 'house');
  assertMayGoOut(whole, 'house');
  const folder = await workFolder(context);
  try {
    const files = join(folder, 'page');
    await mkdir(files);
    const written = await writeBundle(context, whole, files, tools.report);
    const zip = join(folder, 'page.zip');
    await zipFolder(files, zip);
    const { size } = await stat(zip);
    const resultKey = bundleKey(job.id);
    await context.storage.take(resultKey, zip);
    await keepNamesOut(context, placedAssets(whole), new Date());
    await tellSent(context, whole, job.createdBy, 'as a ZIP');
    await tools.report(written.length, written.length, 'Packed');
    return { words: `${written.length} files`, resultKey, resultBytes: size };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Writes down who took a page away, and how, and keeps the state that went out. */
export async function tellSent(
  context: Context,
  { row, doc }: WholePage,
  personId: string,
  how: string,
  what: 'sent' | 'sent-out' = 'sent',
): Promise<void> {
  const [person] = await context.db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(eq(people.id, personId));
  const subject = doc.title || 'Untitled page';
  const now = new Date();
  await keepVersion(context, { id: crypto.randomUUID(), pageId: row.id, doc, personId }, { sent: how }, now);
  await writeAudit(context.db, { person: person ?? null, what, subject, detail: how }, now);
}
