import { Button, type ButtonKind } from './button.tsx';
import { Menu, MenuContent, MenuItem, MenuTrigger } from './menu.tsx';

interface ChooseProps {
  readonly words: string;
  readonly choices: readonly (readonly [value: string, says: string])[];
  readonly onChoose: (value: string) => void;
  readonly side?: 'top' | 'bottom';
  readonly isBusy?: boolean;
  readonly kind?: ButtonKind;
}

/** A button that opens a list of things, one of which is chosen. */
export function Choose({ words, choices, onChoose, side = 'bottom', isBusy = false, kind }: ChooseProps) {
  return (
    <Menu>
      <MenuTrigger asChild>
        <Button kind={kind} disabled={isBusy}>
          {words}
        </Button>
      </MenuTrigger>
      <MenuContent side={side} sideOffset={8}>
        {choices.map(([value, says]) => (
          <MenuItem key={value} onSelect={() => onChoose(value)}>
            {says}
          </MenuItem>
        ))}
      </MenuContent>
    </Menu>
  );
}
