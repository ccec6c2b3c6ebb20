import type { Context } from '../context.ts';
import { recheckEmbeds } from '../embeds/recheck.ts';
import { lookLate } from '../gather/late-looks.ts';
import { keepReport } from '../report/today.ts';
import { askSources } from '../rights/ask-sources.ts';
import { doOnTheDay } from '../rights/on-the-day.ts';
import { lookAgain } from '../sending/look-again.ts';
import { tidy } from '../tidy/tidy.ts';
import { pause } from './pause.ts';

const HOUR_MILLIS = 60 * 60 * 1000;
/** Between two small parts of work that has no hurry. */
const SOON_MILLIS = 250;

/** Tidies up, keeps how pages stand for the report, and does what was decided for terms that end once an hour, and asks embeds, sources and pages that are out again and looks at pieces a few at a time, until `signal` aborts. */
export async function tidyNowAndThen(context: Context, signal: AbortSignal): Promise<void> {
  let tidiedAt = 0;
  while (!signal.aborted) {
    const now = new Date();
    const isMore = await once(context, now, now.getTime() - tidiedAt >= HOUR_MILLIS).catch(
      (error: unknown) => {
        context.log.warn({ err: error }, 'tidying up did not work');
        return false;
      },
    );
    if (now.getTime() - tidiedAt >= HOUR_MILLIS) tidiedAt = now.getTime();
    await pause(isMore ? SOON_MILLIS : HOUR_MILLIS, signal);
  }
}

/** Answers whether there is more to do soon. */
async function once(context: Context, now: Date, isTime: boolean): Promise<boolean> {
  if (isTime) {
    const tidied = await tidy(context, now);
    await keepReport(context, now);
    const ended = await doOnTheDay(context, now);
    if (ended > 0) context.log.info({ pages: ended }, 'did what was decided for terms that ended');
    if (Object.values(tidied).some((count) => count > 0)) context.log.info({ tidied }, 'tidied up');
  }
  const asked =
    (await recheckEmbeds(context, now)) + (await askSources(context, now)) + (await lookAgain(context, now));
  return (await lookLate(context)) > 0 || asked > 0;
}
