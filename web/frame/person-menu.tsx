import { useNavigate } from 'react-router';
import { type Person, ROLE_WORDS } from '#api/people.ts';
import { requestVoid } from '../api/client.ts';
import { chooseTheme, theme } from '../theme/theme.ts';
import { Menu, MenuContent, MenuItem, MenuTrigger } from '../ui/menu.tsx';
import { useStore } from '../ui/store.ts';
import { PersonButton } from './person-button.tsx';

interface PersonMenuProps {
  readonly me: Person;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  readonly onKeys: () => void;
}

/** Who works here, and what is theirs alone: the theme, the password, the way out. */
export default function PersonMenu({ me, isOpen, onOpen, onKeys }: PersonMenuProps) {
  const navigate = useNavigate();
  const current = useStore(theme);
  const signOut = async () => {
    await requestVoid('delete /session');
    // Loaded anew, so that nothing of one person stays in the memory of the page for the next.
    window.location.assign('/');
  };
  return (
    <Menu open={isOpen} onOpenChange={onOpen}>
      <MenuTrigger asChild>
        <PersonButton name={me.name} />
      </MenuTrigger>
      <MenuContent align="end">
        <div className="mb-1 border-b border-hairline px-2 pt-1.5 pb-2">
          <strong>{me.name}</strong>
          <div className="text-soft">{ROLE_WORDS[me.role]}</div>
        </div>
        <MenuItem onSelect={() => chooseTheme(current === 'dark' ? 'light' : 'dark')}>
          {current === 'dark' ? 'Light theme' : 'Dark theme'}
        </MenuItem>
        <MenuItem onSelect={() => navigate('/me')}>Your password</MenuItem>
        <MenuItem onSelect={onKeys}>Keys</MenuItem>
        <MenuItem onSelect={() => void signOut()}>Sign out</MenuItem>
      </MenuContent>
    </Menu>
  );
}
