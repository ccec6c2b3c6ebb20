import { DropdownMenu } from 'radix-ui';
import { Button } from './button.tsx';

interface ChooseProps {
  readonly words: string;
  readonly choices: readonly (readonly [value: string, says: string])[];
  readonly onChoose: (value: string) => void;
  readonly side?: 'top' | 'bottom';
  readonly isBusy?: boolean;
}

/** A button that opens a list of things, one of which is chosen. */
export function Choose({ words, choices, onChoose, side = 'bottom', isBusy = false }: ChooseProps) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger asChild>
        <Button disabled={isBusy}>{words}</Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          className="popover"
          align="start"
          side={side}
          sideOffset={8}
          collisionPadding={8}
          style={{ maxHeight: '60vh', overflow: 'auto' }}
        >
          {choices.map(([value, says]) => (
            <DropdownMenu.Item key={value} className="menu-item" onSelect={() => onChoose(value)}>
              {says}
            </DropdownMenu.Item>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
