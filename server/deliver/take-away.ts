import { mkdir, mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import * as v from 'valibot';
import { placementsOf } from '#core/page/model.ts';
import type { Context } from '../context.ts';
import type { JobRow } from '../jobs/queue.ts';
import type { JobResult, JobTools } from '../jobs/work.ts';
import { proofOf } from '../pages/proof.ts';
import { readPage, type WholePage } from '../pages/store.ts';
import { Refusal } from '../problem.ts';
import { keepNamesOut } from '../shelf/names-out.ts';
import { bundleKey } from '../storage/storage.ts';
import { zipFolder } from '../zip.ts';
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
    await keepNamesOut(context, placedAssets(whole), new Date());
    await tools.report(written.length, written.length, 'Packed');
    return { words: `${written.length} files`, resultKey, resultBytes: size };
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** The pieces whose files go out with a page: those that stand on it, and not what only lies on its tray. */
function placedAssets({ doc, assets }: WholePage): WholePage['assets'] {
  const placed = new Set(placementsOf(doc).map(({ asset }) => asset));
  return assets.filter(({ id }) => placed.has(id));
}
