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
const COMPARED = ['straighten', 'tone', 'sharpness', 'ground'] as const;

/**
 * A piece as it came, on the left of a line, over the piece as it is prepared. What turns and trims it is left as it is
 * on both sides, so that the same place lies under the same point.
 */
export function Compare({ piece, view, width, height }: CompareProps) {
  const [at, setAt] = useState(50);
  const before: Cuttable = {
    ...piece,
    prep: { ...piece.prep, off: [...new Set([...piece.prep.off, ...COMPARED])] },
  };
  const wide = (width * wholeSize(before).width) / wholeSize(piece).width;
  const high = (wide * wholeSize(before).height) / wholeSize(before).width;
  const { words } = recipeForRatio(piece, null);
  return (
    <>
      {words ? (
        <div className="compare-after" style={{ clipPath: `inset(0 0 0 ${at}%)` }}>
          <OverHere words={words} left={0} top={0} width={width} height={height} />
        </div>
      ) : null}
      <div className="compare-before" style={{ clipPath: `inset(0 ${100 - at}% 0 0)` }}>
        <div style={{ position: 'absolute', left: (width - wide) / 2, top: (height - high) / 2 }}>
          <Prepared piece={before} view={view} width={wide} crop={null} alt="" />
        </div>
      </div>
      <span className="compare-line" style={{ left: `${at}%` }} />
      <span className="compare-name" style={{ right: `${100 - at}%` }}>
        As it came
      </span>
      <span className="compare-name" style={{ left: `${at}%` }}>
        Prepared
      </span>
      <input
        type="range"
        className="compare-range"
        aria-label="Where it is divided"
        aria-valuetext={`${at}% as it came`}
        value={at}
        onChange={(event) => setAt(Number(event.target.value))}
      />
    </>
  );
}
