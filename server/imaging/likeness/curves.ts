import { and, eq } from 'drizzle-orm';
import * as v from 'valibot';
import type { LikenessCurve } from '#api/likeness.ts';
import { heightAtWidth, type Size } from '#core/media/dimensions.ts';
import { CUT_FORMATS, cutFormats } from '#core/media/formats.ts';
import { type Recipe, sizeAfter } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';

import type { HouseRules } from '#core/page/target.ts';
import type { Context } from '../../context.ts';
import { likenessCurves } from '../../db/schema.ts';
import { detailPath, signedAddress } from '../../media/addresses.ts';
import { HttpProblem } from '../../problem.ts';
import type { AssetRow } from '../../shelf/present.ts';
import { originalKey } from '../../storage/storage.ts';
import type { CurveSample, FormatCurve, FormatWish } from './curve.ts';
import { CurvesSchema } from './stored-curves.ts';

export interface CurveWish {
  readonly recipe: Recipe;
  readonly width: number;
  readonly rules: HouseRules;
}

/** The curve of bytes against likeness of a cut: measured once for each original, recipe, width and wanted likeness. */
export async function likenessCurve(
  context: Context,
  row: AssetRow,
  wish: CurveWish,
  signal?: AbortSignal,
): Promise<LikenessCurve> {
  assertMeasurable(row, wish);
  const known = await readCurves(context, row, wish);
  const curves = known ?? (await measured(context, row, wish, formatsOf(row, wish), signal));
  if (!known) await keepCurves(context, row, wish, curves);
  return present(context, row, wish, curves);
}

/** The same curve with one more sample, measured at just the quality that a person chose. */
export async function withSample(
  context: Context,
  row: AssetRow,
  wish: CurveWish,
  { format, quality }: { readonly format: FormatWish['format']; readonly quality: number },
  signal?: AbortSignal,
): Promise<LikenessCurve> {
  assertMeasurable(row, wish);
  const known = (await readCurves(context, row, wish)) ?? [];
  const held = known.find((curve) => curve.format === format);
  if (held?.samples.some((sample) => sample.quality === quality && sample.worst))
    return present(context, row, wish, known);
  const [one] = await measured(context, row, wish, [{ format, quality }], signal);
  const others = (held?.samples ?? []).filter((sample) => sample.quality !== quality);
  const samples = [...others, ...(one?.samples ?? [])].sort((a, b) => a.bytes - b.bytes);
  const curves = [
    ...known.filter((curve) => curve.format !== format),
    { format, found: held?.found ?? quality, samples },
  ];
  await keepCurves(context, row, wish, curves);
  return present(context, row, wish, curves);
}

function assertMeasurable(row: AssetRow, { recipe, width }: CurveWish): void {
  if (row.animated)
    throw new HttpProblem(
      422,
      'A picture that moves is not weighed by how alike it looks: its frames follow the house rules.',
    );
  const own = sizeAfter(sizeOf(row), recipe).width;
  if (width < 1 || width > own)
    throw new HttpProblem(422, `A cut of this picture is 1 to ${own} px wide. Nothing was measured.`);
}

const sizeOf = (row: AssetRow): Size => ({ width: row.widthPx, height: row.heightPx });

function formatsOf(row: AssetRow, { width }: CurveWish): readonly FormatWish[] {
  const formats = cutFormats({ alpha: row.alpha, animated: false, widest: width });
  return formats.flatMap((format) => (format === 'png' ? [] : [{ format, quality: null }]));
}

const wantedOf = ({ rules }: CurveWish) => rules.likeness / 1000;

function measured(
  context: Context,
  row: AssetRow,
  wish: CurveWish,
  formats: readonly FormatWish[],
  signal: AbortSignal | undefined,
): Promise<readonly FormatCurve[]> {
  const { recipe, width } = wish;
  return context.storage.withFile(originalKey(row.sha256), (path) =>
    context.pictures.curve(
      { path, original: sizeOf(row), recipe, width, wanted: wantedOf(wish), formats },
      signal,
    ),
  );
}

function sameCurve({ sha256 }: AssetRow, { recipe, width, rules }: CurveWish) {
  return and(
    eq(likenessCurves.sha256, sha256),
    eq(likenessCurves.recipe, recipeKey(recipe)),
    eq(likenessCurves.widthPx, width),
    eq(likenessCurves.wanted, rules.likeness),
  );
}

async function readCurves(
  context: Context,
  row: AssetRow,
  wish: CurveWish,
): Promise<readonly FormatCurve[] | undefined> {
  const [known] = await context.db
    .select({ curves: likenessCurves.curves })
    .from(likenessCurves)
    .where(sameCurve(row, wish));
  const read = v.safeParse(CurvesSchema, known?.curves);
  return read.success ? read.output : undefined;
}

async function keepCurves(
  context: Context,
  row: AssetRow,
  { recipe, width, rules }: CurveWish,
  curves: readonly FormatCurve[],
): Promise<void> {
  await context.db
    .insert(likenessCurves)
    .values({
      sha256: row.sha256,
      recipe: recipeKey(recipe),
      widthPx: width,
      wanted: rules.likeness,
      curves: [...curves],
    })
    .onDuplicateKeyUpdate({ set: { curves: [...curves] } });
}

function present(
  context: Context,
  row: AssetRow,
  wish: CurveWish,
  curves: readonly FormatCurve[],
): LikenessCurve {
  const { recipe, width } = wish;
  const detail = (format: string, quality: number, { x, y }: Worst) =>
    signedAddress(
      context,
      detailPath(row.id, recipeKey(recipe), width, quality, { x, y, file: `detail.${format}` }),
    );
  return {
    width,
    height: heightAtWidth(sizeAfter(sizeOf(row), recipe), width),
    wanted: wantedOf(wish),
    formats: curves.map(({ format, found, samples }) => ({
      format,
      found,
      samples: samples.map(({ worst, ...sample }) => ({
        ...sample,
        written: worst && {
          worst,
          detail: detail(CUT_FORMATS[format].extension, sample.quality, worst),
          untouched: detail('png', UNTOUCHED, worst),
        },
      })),
    })),
  };
}

type Worst = NonNullable<CurveSample['worst']>;

/** A quality of PNG on its own scale: every px is kept. */
const UNTOUCHED = 100;
