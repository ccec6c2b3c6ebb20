import pLimit from 'p-limit';
import { heightAtWidth, type Size } from '#core/media/dimensions.ts';
import { wantedLikeness } from '#core/media/quality.ts';
import { sizeAfter, WHOLE } from '#core/media/recipe.ts';

import type { Context } from '../context.ts';
import { VIEW_PX } from '../media/screen-px.ts';
import { originalKey } from '../storage/storage.ts';
import { type CutSource, type CutWish, ensureCut, type StoredCut, storedCut } from './cut-store.ts';
import type { Draft } from './draft.ts';
import { SCREEN_QUALITY } from './first-look.ts';

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
  const { key, size } = await groundFor(context, source, wish);
  drafting += 1;
  try {
    return await context.storage.withFile(key, (path) =>
      context.pictures.draft(path, { original: size, recipe, width }, signal),
    );
  } finally {
    drafting -= 1;
  }
}

/** Drafts that somebody waits for now. */
let drafting = 0;
/** Between the drafts of one page is never this much time; nor is one waited for that hangs. */
const [QUIET_MILLIS, PATIENCE_MILLIS] = [400, 15_000];

/** Waits until nobody waits for a draft: what is made behind them would take the processors from them. */
async function quiet(): Promise<void> {
  for (let waited = 0; waited < PATIENCE_MILLIS; waited += QUIET_MILLIS) {
    await new Promise((resolve) => setTimeout(resolve, QUIET_MILLIS).unref());
    if (drafting === 0) return;
  }
}

/** What screens show of a piece is drawn on for a draft up to this much larger. */
const ENLARGED = 1.5;

/**
 * What a draft is made of: what screens show of the piece, where it has pixels enough for a look. It is there already,
 * and read in a tenth of the time that the original takes.
 */
async function groundFor(context: Context, source: CutSource, { recipe, width }: CutWish): Promise<Ground> {
  const original = { width: source.widthPx, height: source.heightPx };
  const shown = Math.min(VIEW_PX, original.width);
  const size = { width: shown, height: heightAtWidth(original, shown) };
  const view = { recipe: WHOLE, width: shown, format: 'webp', quality: SCREEN_QUALITY } as const;
  const isEnough = sizeAfter(size, recipe).width * ENLARGED >= width;
  const stored = isEnough ? await storedCut(context, source, view) : undefined;
  return stored ? { key: stored.key, size } : { key: originalKey(source.sha256), size: original };
}

interface Ground {
  readonly key: string;
  /** In px, upright. */
  readonly size: Size;
}

/** One at a time, so that what somebody waits for is not held up. */
const behind = pLimit(1);

function makeBehind(context: Context, source: CutSource, { recipe, width, format, quality }: CutWish): void {
  behind(async () => {
    await quiet();
    if (context.ending.aborted) return;
    await ensureCut(context, source, recipe, width, format, quality, context.ending);
  }).catch((error: unknown) => {
    // Nobody waits for it: whoever needs the cut asks for it, and is told.
    context.log.debug({ err: error }, 'a cut was not made ahead');
  });
}
