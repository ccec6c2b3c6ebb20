import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import {
  type CurveFormat,
  type LikenessCurve,
  LikenessCurveSchema,
  type LikenessSample,
  type WrittenSample,
} from '#api/likeness.ts';
import { LIKENESS_TOLERANCE } from '#core/media/alike.ts';
import { sampleAt } from '#core/media/curve-point.ts';
import { type Cuttable, type Prep, recipeForRatio, sizeAfter } from '#core/media/recipe.ts';
import { recipeKey } from '#core/media/recipe-key.ts';
import { sayBytes } from '#core/media/weight.ts';
import { wordsApart } from '#core/page/picture.ts';
import type { CutPreset, HouseRules } from '#core/page/target.ts';
import { requestJson, sayFailure } from '../api/client.ts';
import { likenessQuery, queryClient } from '../api/queries.ts';
import { Button } from '../ui/button.tsx';
import { Chips } from '../ui/chips.tsx';
import { Fault } from '../ui/fault.tsx';
import { toast } from '../ui/toast.ts';
import { LikenessChart } from './likeness-chart.tsx';

const FORMAT_WORDS: Readonly<Record<CurveFormat, string>> = { avif: 'AVIF', webp: 'WebP', jpeg: 'JPEG' };

interface LikenessPanelProps {
  readonly asset: Asset;
  readonly piece: Cuttable;
  readonly preset: CutPreset;
  readonly rules: HouseRules;
  readonly targetId: string;
  readonly isEditable: boolean;
  readonly onKeep: (prep: Prep, name: string) => void;
  /** The sample whose worst place is to be looked at, or null for none. */
  readonly onLook: (sample: WrittenSample | null) => void;
  readonly isLooking: boolean;
}

/** The smallest file that looks the same: bytes against likeness for each format, and the quality that is chosen. */
export default function LikenessPanel(props: LikenessPanelProps) {
  const { asset, piece, preset, rules, targetId } = props;
  const { recipe } = wordsApart(recipeForRatio(piece, preset.ratio), rules.wordsOver === 'drawn');
  const width = Math.min(preset.width, sizeAfter(piece.size, recipe).width);
  const about = { recipe: recipeKey(recipe), width, target: targetId };
  const curve = useQuery(likenessQuery(asset.id, about));
  return (
    <section className="border-t border-line bg-panel px-4.5 pt-2.5 pb-3" aria-labelledby="likeness-name">
      <h2 className="text-md" id="likeness-name">
        Smallest file that looks the same
      </h2>
      {curve.isPending ? (
        <p role="status" className="text-soft">
          Writes {preset.name} in every format, and compares each with the untouched picture. It takes some
          seconds.
        </p>
      ) : null}
      <Fault says={curve.error ? sayFailure(curve.error) : null} />
      {curve.data ? <Curve {...props} about={about} curve={curve.data} /> : null}
    </section>
  );
}

interface CurveProps extends LikenessPanelProps {
  readonly about: { readonly recipe: string; readonly width: number; readonly target: string };
  readonly curve: LikenessCurve;
}

function Curve({ asset, piece, about, curve, isEditable, onKeep, onLook, isLooking }: CurveProps) {
  const [format, setFormat] = useState<CurveFormat>(curve.formats[0]?.format ?? 'jpeg');
  const [dragged, setDragged] = useState<number | null>(null);
  const open = curve.formats.find((one) => one.format === format) ?? curve.formats[0];
  if (!open) return <p className="text-soft">This picture is written as PNG alone, which loses nothing.</p>;
  const kept = piece.prep.quality[open.format] ?? open.found;
  const quality = dragged ?? kept;
  const measure = (wish: number) => measureOne(asset.id, about, open.format, wish);
  const choose = async (wish: number) => {
    setDragged(wish);
    try {
      const measured = await measure(wish);
      const { [open.format]: _before, ...others } = piece.prep.quality;
      onKeep(
        // What is found is what the house rules ask for, which may lie between two qualities.
        { ...piece.prep, quality: wish === open.found ? others : { ...others, [open.format]: wish } },
        `its quality as ${FORMAT_WORDS[open.format]}`,
      );
      if (isLooking) onLook(sampleOf(measured, open.format, wish)?.written ?? null);
    } catch (error) {
      toast.error(sayFailure(error));
    } finally {
      setDragged(null);
    }
  };
  const look = async () => {
    if (isLooking) onLook(null);
    else
      try {
        onLook(sampleOf(await measure(kept), open.format, kept)?.written ?? null);
      } catch (error) {
        toast.error(sayFailure(error));
      }
  };
  const isOwn = Object.keys(piece.prep.quality).length > 0;
  return (
    <>
      <div className="mt-1 flex flex-wrap items-center gap-x-3.5 gap-y-0.5">
        <Chips
          about="Format"
          pressed={[open.format]}
          choices={curve.formats.map((one) => [one.format, FORMAT_WORDS[one.format]] as const)}
          onPress={setFormat}
        />
        <p className="order-first min-h-4.75 grow basis-full" role="status">
          {sayChosen(curve, open, quality)}
        </p>
        <Button kind="link" aria-pressed={isLooking} onClick={() => void look()}>
          {isLooking ? 'Back to the picture' : 'Look where it is least alike'}
        </Button>
        {isEditable && isOwn ? (
          <Button
            kind="link"
            onClick={() => onKeep({ ...piece.prep, quality: {} }, 'its quality, by the house rules')}
          >
            Follow the house rules
          </Button>
        ) : null}
      </div>
      <LikenessChart
        curve={curve}
        format={open.format}
        quality={quality}
        isEditable={isEditable}
        onDrag={setDragged}
        onChoose={(wish) => void choose(wish)}
      />
    </>
  );
}

async function measureOne(
  id: string,
  about: CurveProps['about'],
  format: CurveFormat,
  quality: number,
): Promise<LikenessCurve> {
  const { queryKey } = likenessQuery(id, about);
  const known = queryClient.getQueryData<LikenessCurve>(queryKey);
  if (known && sampleOf(known, format, quality)?.written) return known;
  const body = { ...about, format, quality };
  const curve = await requestJson('post /assets/{id}/likeness', LikenessCurveSchema, { path: { id }, body });
  queryClient.setQueryData(queryKey, curve);
  return curve;
}

function sampleOf(curve: LikenessCurve, format: CurveFormat, quality: number): LikenessSample | undefined {
  return curve.formats
    .find((one) => one.format === format)
    ?.samples.find((sample) => sample.quality === quality);
}

type OneFormat = LikenessCurve['formats'][number];

/** "AVIF at 86: 148 kB, likeness 0.984. The house rules ask for 0.985." */
function sayChosen(curve: LikenessCurve, { format, samples, found }: OneFormat, quality: number): string {
  const chosen = sampleAt(samples, quality);
  if (!chosen) return '';
  const isMeasured = samples.some((sample) => sample.quality === quality && sample.written);
  const words = `${FORMAT_WORDS[format]} at ${quality}: ${isMeasured ? '' : 'about '}${sayBytes(chosen.bytes)}, likeness ${chosen.likeness.toFixed(3)}.`;
  if (quality === found) return `${words} ${sayFound(curve.wanted, chosen.likeness)}`;
  const house = sampleAt(samples, found);
  return house ? `${words} By the house rules it is ${found}: ${sayBytes(house.bytes)}.` : words;
}

function sayFound(wanted: number, likeness: number): string {
  if (likeness < wanted - LIKENESS_TOLERANCE)
    return `No file of this format comes to ${wanted}: the picture is too fine in grain.`;
  if (likeness > wanted + LIKENESS_TOLERANCE)
    return `The house rules ask for ${wanted}: what is lighter loses its lines.`;
  return `The house rules ask for ${wanted}.`;
}
