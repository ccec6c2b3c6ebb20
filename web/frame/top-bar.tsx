import { useQuery } from '@tanstack/react-query';
import { lazy, Suspense, useState } from 'react';
import { NavLink, useLocation } from 'react-router';
import { may, type Permission } from '#api/people.ts';
import { meQuery } from '../api/queries.ts';
import { RunningArrivals } from '../arrivals/running.tsx';
import { RunningRuns } from '../run/running-runs.tsx';
import { cx } from '../ui/cx.ts';
import { UndoButtons } from '../undo/undo-keys.tsx';
import type { Area } from './area.ts';
import { Mark } from './mark.tsx';
import { PersonButton } from './person-button.tsx';
import { useIsNarrow } from './use-is-narrow.ts';

/** What opens from the person comes after the first screen. */
const AreasMenu = lazy(() => import('./areas-menu.tsx'));
const PersonMenu = lazy(() => import('./person-menu.tsx'));

/** The areas, each with the deed without which nothing can be done there. */
const AREAS: readonly (Area & { readonly deed?: Permission })[] = [
  { to: '/', name: 'Desk' },
  { to: '/pages', name: 'Pages', deed: 'edit-pages' },
  { to: '/shelf', name: 'Shelf' },
  { to: '/embeds', name: 'Embeds', deed: 'edit-pages' },
  { to: '/rights', name: 'Rights', deed: 'say-rights' },
  { to: '/rules', name: 'House rules' },
];

export function TopBar({ onFind, onKeys }: { readonly onFind: () => void; readonly onKeys: () => void }) {
  const { pathname, search } = useLocation();
  const { data: me } = useQuery(meQuery);
  // Pressed before what opens is there, it opens as soon as it is.
  const [isMenuOpen, setMenuOpen] = useState(false);
  // Gathering is part of the area that it was reached from.
  const gathersFrom =
    pathname === '/gather' ? (new URLSearchParams(search).has('page') ? '/pages' : '/shelf') : null;
  const isNarrow = useIsNarrow();
  const areas = AREAS.filter(({ deed }) => !deed || (me && may(me.role, deed)));
  return (
    <header className="flex min-w-0 items-center gap-4.5 bg-bar px-4.5 text-bar-ink [--focus-ground:transparent] [--focus:var(--color-bar-ink)] max-narrow:gap-1 max-narrow:px-2.5 max-narrow:py-0 print:hidden">
      <NavLink
        to="/"
        className="flex items-center gap-2.25 text-2xl font-bold font-stretch-112% no-underline"
        aria-label="Placard, to the Desk"
      >
        <Mark />
        <span className="max-narrow:hidden">Placard</span>
      </NavLink>
      {isNarrow ? (
        <Suspense>
          <AreasMenu areas={areas} path={gathersFrom ?? pathname} />
        </Suspense>
      ) : (
        <nav className="ml-2 flex gap-1" aria-label="Areas">
          {areas.map(({ to, name }) => (
            <NavLink
              key={to}
              to={to}
              end={to === '/'}
              className={({ isActive }) =>
                cx(
                  'rounded-sm px-2.75 py-1.25 font-semibold text-bar-ink no-underline hover:bg-white/9',
                  (isActive || to === gathersFrom) && 'bg-panel text-ink hover:bg-panel',
                )
              }
            >
              {name}
            </NavLink>
          ))}
        </nav>
      )}
      <div className="ml-auto flex min-w-0 items-center gap-3 max-narrow:gap-1">
        <RunningRuns />
        <RunningArrivals />
        <UndoButtons />
        <button
          type="button"
          className="flex h-7 w-62.5 items-center justify-between rounded-sm border border-bar-line px-2.5 text-bar-soft max-narrow:w-auto max-narrow:border-0 max-narrow:px-1.5 max-narrow:whitespace-nowrap"
          onClick={onFind}
        >
          Find or do...{' '}
          <kbd className="rounded-sm border border-current px-1.25 font-mono text-2xs leading-4 font-normal max-narrow:hidden">
            Ctrl K
          </kbd>
        </button>
        {me ? (
          <Suspense fallback={<PersonButton name={me.name} onClick={() => setMenuOpen(true)} />}>
            <PersonMenu me={me} isOpen={isMenuOpen} onOpen={setMenuOpen} onKeys={onKeys} />
          </Suspense>
        ) : null}
      </div>
    </header>
  );
}
