import { wantedLikeness } from '#core/media/quality.ts';
import { atMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import { originalKey } from '../storage/storage.ts';
import { type CutSource, type CutWish, ensureCut, type StoredCut, storedCut } from './cut-store.ts';
import type { Draft } from './draft.ts';

/**
 * The cut where it is stored; else a draft of it at once, while the cut is made behind it. A cut whose quality is not
 * looked for is made and waited for: that is quick.
 */
export async function cutOrDraft(
  context: Context,
  source: CutSource,
  wish: CutWish,
  signal: AbortSignal,
): Promise<StoredCut | Draft> {
  const { recipe, width, format, quality } = wish;
  if (wantedLikeness(quality) === null)
    return ensureCut(context, source, recipe, width, format, quality, signal);
  const stored = await storedCut(context, source, wish);
  if (stored) return stored;
  makeBehind(context, source, wish);
  const original = { width: source.widthPx, height: source.heightPx };
  return context.storage.withFile(originalKey(source.sha256), (path) =>
    context.pictures.draft(path, { original, recipe, width }, signal),
  );
}

/** One at a time, so that what somebody waits for is not held up. */
const behind = atMost(1);

function makeBehind(context: Context, source: CutSource, { recipe, width, format, quality }: CutWish): void {
  behind(async () => {
    if (context.ending.aborted) return;
    await ensureCut(context, source, recipe, width, format, quality, context.ending);
  }).catch((error: unknown) => {
    // Nobody waits for it: whoever needs the cut asks for it, and is told.
    context.log.debug({ err: error }, 'a cut was not made ahead');
  });
}
