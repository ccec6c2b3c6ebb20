import type { Recipe } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { type Cut, planPicture } from '#core/page/picture.ts';
import { documentStyle, styleSheet } from '#core/page/style-sheet.ts';
import { standingsOf } from '#core/page/walk.ts';
import { writeDocument } from '#core/page/write.ts';
import { eachAtMost } from '../at-once.ts';
import type { Context } from '../context.ts';
import type { CutSource } from '../imaging/cut-store.ts';
import { markedUnfinished, whatStops } from '../pages/gate.ts';
import type { WholePage } from '../pages/store.ts';
import { originalKey } from '../storage/storage.ts';

const AT_ONCE = 2;

/**
 * A page as one file with its pictures in it, for somebody to look at who has nothing but a browser. The pictures are
 * drafts at the widths at which they are shown: what goes out is in the ZIP.
 */
export async function oneFile(context: Context, whole: WholePage, signal: AbortSignal): Promise<string> {
  const pictures = await draftsOf(context, whole, signal);
  const html = writeDocument(whole.doc, {
    rules: whole.rules,
    pieces: whole.pieces,
    pages: whole.pages,
    oneFileEach: true,
    addressOf: (cut) => pictures.get(draftKey(cut)) ?? '',
    styleSheet: dataAddress(
      'text/css',
      Buffer.from(`${documentStyle(whole.rules)}${styleSheet(whole.rules, whole.doc, whole.pieces)}`),
    ),
  });
  const stops = whatStops(whole);
  if (stops.length === 0) return html;
  // What comes before the document's type turns it off.
  const [type = '', ...rest] = html.split('\n');
  return `${type}\n${markedUnfinished(rest.join('\n'), stops)}`;
}

interface Shown {
  readonly source: CutSource;
  readonly recipe: Recipe;
  readonly width: number;
}

/** By what the draft of a cut is found again. */
export const draftKey = ({ assetId, recipe, size }: Cut) => `${assetId} ${recipeKey(recipe)} ${size.width}`;

/** Pictures as they are shown, drawn quickly, as addresses with the bytes in them. */
export async function draftsOf(
  context: Context,
  { doc, rules, pieces, assets }: WholePage,
  signal: AbortSignal,
): Promise<ReadonlyMap<string, string>> {
  const wanted = new Map<string, Shown>();
  for (const standing of standingsOf(doc, { rules, pieces })) {
    const { placement } = standing;
    const piece = pieces.get(placement.asset);
    const source = assets.find(({ id }) => id === placement.asset);
    if (!piece || !source) continue;
    const { fallback } = planPicture(rules, standing, piece);
    wanted.set(draftKey(fallback), { source, recipe: fallback.recipe, width: fallback.size.width });
  }
  const made = new Map<string, string>();
  await eachAtMost(AT_ONCE, [...wanted], async ([key, { source, recipe, width }]) => {
    signal.throwIfAborted();
    const original = { width: source.widthPx, height: source.heightPx };
    const { bytes, mime } = await context.storage.withFile(originalKey(source.sha256), (path) =>
      context.pictures.draft(path, { original, recipe, width }, signal),
    );
    made.set(key, dataAddress(mime, Buffer.from(bytes)));
  });
  return made;
}

const dataAddress = (mime: string, bytes: Buffer) => `data:${mime};base64,${bytes.toString('base64')}`;
