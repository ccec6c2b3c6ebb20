import { useQuery } from '@tanstack/react-query';
import { DropdownMenu } from 'radix-ui';
import { NavLink, useLocation, useNavigate } from 'react-router';
import { type Deed, may, ROLE_WORDS } from '#api/people.ts';
import { tell } from '../api/client.ts';
import { meQuery } from '../api/queries.ts';
import { RunningArrivals } from '../arrivals/running.tsx';
import { RunningRuns } from '../run/running-runs.tsx';
import { chooseTheme, theme } from '../theme/theme.ts';
import { useStore } from '../ui/store.ts';
import { UndoButtons } from '../undo/undo-keys.tsx';
import { Mark } from './mark.tsx';

/** The areas, each with the deed without which nothing can be done there. */
const AREAS: readonly { readonly to: string; readonly name: string; readonly deed?: Deed }[] = [
  { to: '/', name: 'Desk' },
  { to: '/pages', name: 'Pages', deed: 'edit-pages' },
  { to: '/shelf', name: 'Shelf' },
  { to: '/embeds', name: 'Embeds', deed: 'edit-pages' },
  { to: '/rules', name: 'House rules' },
];

export function TopBar({ onFind, onKeys }: { readonly onFind: () => void; readonly onKeys: () => void }) {
  const { pathname, search } = useLocation();
  const { data: me } = useQuery(meQuery);
  // Gathering is part of the area that it was reached from.
  const gathersFrom =
    pathname === '/gather' ? (new URLSearchParams(search).has('page') ? '/pages' : '/shelf') : null;
  return (
    <header className="bar">
      <NavLink to="/" className="bar-mark" aria-label="Placard, to the Desk">
        <Mark />
        <span>Placard</span>
      </NavLink>
      <nav aria-label="Areas">
        {AREAS.filter(({ deed }) => !deed || (me && may(me.role, deed))).map(({ to, name }) => (
          <NavLink key={to} to={to} end={to === '/'} className={to === gathersFrom ? 'is-here' : ''}>
            {name}
          </NavLink>
        ))}
      </nav>
      <div className="bar-right">
        <RunningRuns />
        <RunningArrivals />
        <UndoButtons />
        <button type="button" className="find-button" onClick={onFind}>
          Find or do... <kbd>Ctrl K</kbd>
        </button>
        <PersonMenu onKeys={onKeys} />
      </div>
    </header>
  );
}

function PersonMenu({ onKeys }: { readonly onKeys: () => void }) {
  const { data: me } = useQuery(meQuery);
  const navigate = useNavigate();
  const current = useStore(theme);
  if (!me) return null;
  const initials = me.name
    .split(' ')
    .map((part) => part.charAt(0))
    .join('');
  const signOut = async () => {
    await tell('/session', { method: 'DELETE' });
    // Loaded anew, so that nothing of one person stays in the memory of the page for the next.
    window.location.assign('/');
  };
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <button type="button" className="person-button" aria-label={`${initials}: ${me.name}, your menu`}>
          {initials}
        </button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="popover" align="end" sideOffset={6}>
          <div className="person-card">
            <strong>{me.name}</strong>
            <div className="soft">{ROLE_WORDS[me.role]}</div>
          </div>
          <DropdownMenu.Item
            className="menu-item"
            onSelect={() => chooseTheme(current === 'dark' ? 'light' : 'dark')}
          >
            {current === 'dark' ? 'Light theme' : 'Dark theme'}
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={() => navigate('/me')}>
            Your password
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={onKeys}>
            Keys
          </DropdownMenu.Item>
          <DropdownMenu.Item className="menu-item" onSelect={() => void signOut()}>
            Sign out
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
