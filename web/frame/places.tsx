import { type ReactNode, useEffect, useRef } from 'react';
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

interface AtPlacesProps {
  /** What they are places of, for those who cannot see them. */
  readonly about: string;
  readonly places: readonly Place[];
  /** What stands at each place, by what is looked at now. */
  readonly children: ReactNode;
  readonly className?: string | undefined;
}

/** A screen of places: the one that is looked at, and the way to the others under it. */
export function AtPlaces({ about, places, children, className }: AtPlacesProps) {
  const ground = useRef<HTMLDivElement>(null);
  const here = places.find(({ isHere }) => isHere)?.name;
  const before = useRef(here);
  // What had the focus may stand at the place that was left: then the new one has it.
  useEffect(() => {
    if (before.current === here) return;
    before.current = here;
    const { activeElement } = document;
    if (activeElement === null || activeElement === document.body || activeElement.closest('[hidden]'))
      ground.current?.querySelector<HTMLElement>(':scope > :not([hidden])')?.focus();
  }, [here]);
  return (
    <div className={cx('grid min-h-0 min-w-0 grid-rows-[minmax(0,1fr)_auto]', className)}>
      <div className="grid min-h-0 grid-cols-[minmax(0,1fr)] *:col-start-1 *:row-start-1" ref={ground}>
        {children}
      </div>
      <Places about={about} places={places} />
    </div>
  );
}

/** What stands at one place: kept as it is while another is looked at. */
export function AtPlace({ isHere, children }: { readonly isHere: boolean; readonly children: ReactNode }) {
  return (
    <div
      className="grid min-h-0 min-w-0 grid-cols-[minmax(0,1fr)] overflow-hidden *:min-h-0"
      hidden={!isHere}
      tabIndex={-1}
    >
      {children}
    </div>
  );
}
