import type { ReactNode } from 'react';
import { cx } from '../ui/cx.ts';

/** One of the places of a screen that has no room to show them side by side. */
export interface Place {
  readonly name: string;
  /** What is there, in a word or two; `isDue` where something is left to do. */
  readonly says: string;
  readonly isDue?: boolean;
  readonly isHere: boolean;
  readonly go: () => void;
}

/** The places of a narrow screen, at its lower edge: one is looked at, the others are a touch away. */
export function Places({ about, places }: { readonly about: string; readonly places: readonly Place[] }) {
  return (
    <nav className="flex border-t border-line bg-panel" aria-label={about}>
      {places.map(({ name, says, isDue = false, isHere, go }) => (
        <button
          key={name}
          type="button"
          className={cx(
            'min-h-12 min-w-0 flex-1 border-t-4 border-t-transparent px-1 pt-0.5 pb-1 -outline-offset-2',
            isHere && 'border-t-ink bg-ground',
          )}
          aria-current={isHere ? 'true' : undefined}
          onClick={go}
        >
          <b className={cx('block text-base leading-tight', isDue && 'text-due')}>{name}</b>
          <span
            className={cx(
              'block truncate font-mono text-mono leading-tight',
              isDue ? 'text-due' : 'text-soft',
            )}
          >
            {says}
          </span>
        </button>
      ))}
    </nav>
  );
}

/** What stands at one place: kept as it is while another is looked at. */
export function AtPlace({ isHere, children }: { readonly isHere: boolean; readonly children: ReactNode }) {
  return (
    <div
      className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] overflow-hidden *:min-h-0"
      hidden={!isHere}
    >
      {children}
    </div>
  );
}
