import './hatch.css';
import { cva, type VariantProps } from 'class-variance-authority';
import type { CSSProperties } from 'react';
import { cx } from '../ui/cx.ts';

/** Two end ticks, drawn before and after; the line between them and the figure on it are elements. */
const look = cva(
  'pointer-events-none absolute before:absolute before:bg-current after:absolute after:bg-current',
  {
    variants: {
      axis: {
        x: 'h-3 before:top-px before:left-0 before:h-2.5 before:w-px after:top-px after:right-0 after:h-2.5 after:w-px',
        y: 'w-3 before:top-0 before:left-px before:h-px before:w-2.5 after:bottom-0 after:left-px after:h-px after:w-2.5',
      },
      /** Over what it stands: the sheet and the screens, a drawing of a page, or the grey stage. */
      tone: { due: 'text-due', soft: 'text-soft', stage: 'text-white' },
    },
    defaultVariants: { tone: 'due' },
  },
);

const LINE = { x: 'top-[5.5px] inset-x-0 h-px', y: 'left-[5.5px] inset-y-0 w-px' } as const;
const FIGURE = {
  x: '-top-px left-1/2 -translate-x-1/2 px-1.25',
  y: 'top-1/2 -left-px -translate-y-1/2 py-1.25 [writing-mode:vertical-rl]',
} as const;

interface DimensionProps {
  readonly axis: 'x' | 'y';
  readonly words: string;
  readonly tone?: VariantProps<typeof look>['tone'];
  /** What lies under the figure. */
  readonly ground?: string;
  readonly style?: CSSProperties;
}

/** A dimension line as on a plan: end ticks, the figure on the line. */
export function Dimension({ axis, words, tone = 'due', ground = 'bg-paper', style }: DimensionProps) {
  return (
    <div className={look({ axis, tone })} data-dimension={axis} style={style} aria-hidden="true">
      <i className={cx('absolute bg-current', LINE[axis], tone === 'due' && 'shadow-line')} />
      <b
        className={cx(
          'absolute font-mono text-2xs leading-3.5 font-medium whitespace-nowrap',
          FIGURE[axis],
          tone === 'stage' ? 'bg-stage-plate' : ground,
        )}
      >
        {words}
      </b>
    </div>
  );
}

/** A margin, hatched. */
export function Hatch({ style }: { readonly style: CSSProperties }) {
  return <div className="hatch pointer-events-none absolute" style={style} aria-hidden="true" />;
}
