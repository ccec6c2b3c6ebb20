import './measure.css';
import type { CSSProperties } from 'react';

interface DimensionProps {
  readonly axis: 'x' | 'y';
  readonly words: string;
  readonly style?: CSSProperties;
}

/** A dimension line as on a plan: end ticks, the figure on the line. */
export function Dimension({ axis, words, style }: DimensionProps) {
  return (
    <div className="dimension" data-axis={axis} style={style} aria-hidden="true">
      <i className="dimension-line" />
      <b className="dimension-figure">{words}</b>
    </div>
  );
}

/** A margin, hatched. */
export function Hatch({ style }: { readonly style: CSSProperties }) {
  return <div className="hatch" style={style} aria-hidden="true" />;
}
