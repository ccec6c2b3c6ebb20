import type { Context } from '../context.ts';
import { clearPreviews } from '../gather/preview.ts';
import { emptyBin } from '../shelf/put-away.ts';

/** What is done now and then, by whichever worker comes to it; doing it twice does no harm. */
export async function tidy(context: Context, now: Date): Promise<void> {
  await emptyBin(context, now);
  await clearPreviews(context, now);
}
