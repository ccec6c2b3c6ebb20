import { createWriteStream } from 'node:fs';
import { mkdir, mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ZipArchive } from 'archiver';
import * as v from 'valibot';
import type { Context } from '../context.ts';
import type { JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { proofOf } from '../pages/proof.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { Refusal } from '../problem.ts';
import { bundleKey } from '../storage/storage.ts';
import { writeBundle } from './bundle.ts';

export const TAKE_AWAY = 'take-away';

const TakeAwaySchema = v.strictObject({ pageId: v.string() });

/** Refuses a page with findings that stop sending. Asked when the work is ordered and again when it is done. */
export function assertMayGoOut(whole: WholePage): void {
  const stops = proofOf(whole).filter((finding) => finding.severity === 'stops');
  const [first] = stops;
  if (!first) return;
  const rest = stops.length > 1 ? ` and ${stops.length - 1} more` : '';
  throw new Refusal(
    409,
    `This page cannot go out yet: ${first.sentence.replace(/\.$/, '')}${rest}. The proof shows what mends it.`,
    { stops },
  );
}

/** The job behind "Take away": the page's bundle as a ZIP. Safe to run again: cuts that are made are not made twice. */
export async function takeAway(context: Context, job: JobRow, tools: JobTools): Promise<JobResult> {
  const { pageId } = v.parse(TakeAwaySchema, job.input);
  const whole = await readPage(context, pageId);
  assertMayGoOut(whole);
  const folder = await mkdtemp(join(tmpdir(), 'placard-bundle-'));
  try {
    const files = join(folder, 'page');
    await mkdir(files);
    const written = await writeBundle(context, whole, files, tools.report);
    const zip = join(folder, 'page.zip');
    await zipFolder(files, zip);
    const { size } = await stat(zip);
    const resultKey = bundleKey(job.id);
    await context.storage.take(resultKey, zip);
    await tools.report(written.length, written.length, 'Packed');
    return { words: `${written.length} files`, resultKey, resultBytes: size };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

async function zipFolder(folder: string, path: string): Promise<void> {
  // Pictures are packed already, so a fast setting loses nothing.
  const archive = new ZipArchive({ zlib: { level: 6 } });
  archive.directory(folder, false);
  const writing = pipeline(archive, createWriteStream(path));
  await archive.finalize();
  await writing;
}
