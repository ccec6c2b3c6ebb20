import { Slider } from 'radix-ui';
import { useState } from 'react';
import { type Cuttable, recipeForRatio, wholeSize } from '#core/media/recipe.ts';
import { OverHere } from '../over/over-here.tsx';
import { Prepared } from './prepared.tsx';

interface CompareProps {
  readonly piece: Cuttable;
  readonly view: string;
  readonly width: number;
  readonly height: number;
}

/** The steps that are seen on one side only. */
const COMPARED = ['straighten', 'tone', 'sharpness', 'backgroundColour'] as const;

/**
 * A piece as it came, on the left of a line, over the piece as it is prepared. What turns and trims it is left as it is
 * on both sides, so that the same place lies under the same point.
 */
export function Compare({ piece, view, width, height }: CompareProps) {
  const [at, setAt] = useState(50);
  const before: Cuttable = {
    ...piece,
    prep: { ...piece.prep, disabledSteps: [...new Set([...piece.prep.disabledSteps, ...COMPARED])] },
  };
  const wide = (width * wholeSize(before).width) / wholeSize(piece).width;
  const high = (wide * wholeSize(before).height) / wholeSize(before).width;
  const { words } = recipeForRatio(piece, null);
  return (
    <>
      {words ? (
        <div
          className="pointer-events-none absolute inset-0 overflow-hidden"
          style={{ clipPath: `inset(0 0 0 ${at}%)` }}
        >
          <OverHere words={words} left={0} top={0} width={width} height={height} />
        </div>
      ) : null}
      <div
        className="pointer-events-none absolute inset-0 overflow-hidden"
        style={{ clipPath: `inset(0 ${100 - at}% 0 0)` }}
      >
        <div style={{ position: 'absolute', left: (width - wide) / 2, top: (height - high) / 2 }}>
          <Prepared piece={before} view={view} width={wide} crop={null} alt="" />
        </div>
      </div>
      <span
        className="pointer-events-none absolute bottom-2 mx-2 bg-black/82 px-1.5 py-px text-2xs whitespace-nowrap text-white"
        style={{ right: `${100 - at}%` }}
      >
        As it came
      </span>
      <span
        className="pointer-events-none absolute bottom-2 mx-2 bg-black/82 px-1.5 py-px text-2xs whitespace-nowrap text-white"
        style={{ left: `${at}%` }}
      >
        Prepared
      </span>
      <Slider.Root
        className="absolute inset-0 cursor-ew-resize touch-none"
        value={[at]}
        onValueChange={([next]) => setAt(next ?? at)}
      >
        <Slider.Track className="absolute inset-0" />
        <Slider.Thumb
          className="block w-0.75 bg-white outline-1 outline-black focus-visible:bg-due"
          style={{ height }}
          aria-label="Where it is divided"
          aria-valuetext={`${at}% as it came`}
        />
      </Slider.Root>
    </>
  );
}
