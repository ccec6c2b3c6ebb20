import type { Context } from '../context.ts';
import { recheckEmbeds } from '../embeds/recheck.ts';
import { lookLate } from '../gather/late-looks.ts';
import { clearPreviews } from '../gather/preview.ts';
import { emptyBin } from '../shelf/put-away.ts';

/**
 * What is done now and then, by whichever worker comes to it; doing it twice does no harm. Answers whether there is
 * more of it to do soon.
 */
export async function tidy(context: Context, now: Date): Promise<boolean> {
  await emptyBin(context, now);
  await clearPreviews(context, now);
  const asked = await recheckEmbeds(context, now);
  return (await lookLate(context)) > 0 || asked > 0;
}
