import { ChevronDown } from 'lucide-react';
import { useNavigate } from 'react-router';
import { Menu, MenuContent, MenuItem, MenuTrigger } from '../ui/menu.tsx';
import type { Area } from './area.ts';

/** The areas on a narrow screen, behind the name of the one that is open. */
export default function AreasMenu({
  areas,
  path,
}: {
  readonly areas: readonly Area[];
  readonly path: string;
}) {
  const navigate = useNavigate();
  const here = areas.find(({ to }) => (to === '/' ? path === '/' : path.startsWith(to)));
  return (
    <Menu>
      <MenuTrigger asChild>
        <button
          type="button"
          aria-label={`${here?.name ?? 'Areas'}, other areas`}
          className="flex min-h-7 min-w-0 items-center gap-1 rounded-sm px-1.5 text-md font-semibold text-bar-ink"
        >
          <span className="truncate">{here?.name ?? 'Areas'}</span>
          <ChevronDown className="flex-none" size={14} aria-hidden="true" />
        </button>
      </MenuTrigger>
      <MenuContent>
        {areas.map(({ to, name }) => (
          <MenuItem
            key={to}
            aria-current={here?.to === to ? 'page' : undefined}
            className="aria-[current]:font-strong"
            onSelect={() => navigate(to)}
          >
            {name}
          </MenuItem>
        ))}
      </MenuContent>
    </Menu>
  );
}
