import type { BringInWish, InheritedPage } from '#api/inherited.ts';
import type { Alt } from '#core/rights/label.ts';
import { Checkbox } from '../ui/checkbox.tsx';
import { Input } from '../ui/input.tsx';

interface WordsAskedProps {
  readonly asked: InheritedPage['unworded'];
  readonly wish: BringInWish;
  readonly isBusy: boolean;
  readonly onWish: (wish: BringInWish) => void;
}

const MOST_LETTERS = 1000;

/** What pictures without words show, asked in one pass before they come in. What is left open is asked for later. */
export function WordsAsked({ asked, wish, isBusy, onWish }: WordsAskedProps) {
  const say = (use: number, alt: Alt | null) => {
    const { [use]: _, ...others } = wish.alts;
    onWish({ ...wish, alts: alt === null ? others : { ...others, [use]: alt } });
  };
  return (
    <ul className="mt-2 grid gap-2.5" aria-label="Pictures without words">
      {asked.map(({ use, name, look }) => {
        const alt = wish.alts[use];
        const isDecorative = alt?.kind === 'decorative';
        return (
          <li key={use} className="grid grid-cols-[72px_minmax(0,1fr)] gap-2.5">
            {look === null ? (
              <span />
            ) : (
              <img src={look} alt="" loading="lazy" className="h-15 w-18 bg-ground object-contain" />
            )}
            <div>
              <Input
                aria-label={`What ${name} shows`}
                placeholder={isDecorative ? 'Nothing has to be said' : 'What it shows'}
                maxLength={MOST_LETTERS}
                disabled={isBusy || isDecorative}
                value={alt?.kind === 'text' ? alt.text : ''}
                onChange={({ target: { value } }) =>
                  say(use, value === '' ? null : { kind: 'text', text: value })
                }
              />
              <Checkbox
                checked={isDecorative}
                disabled={isBusy}
                onChange={(isOn) => say(use, isOn ? { kind: 'decorative' } : null)}
              >
                <span>
                  It only decorates<span className="sr-only"> ({name})</span>
                </span>
              </Checkbox>
            </div>
          </li>
        );
      })}
    </ul>
  );
}
