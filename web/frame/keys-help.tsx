import { Fragment, useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Checkbox } from '../ui/checkbox.tsx';
import { Input } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';
import {
  chooseLetter,
  type LetterDeed,
  singleKeys,
  switchSingleKeys,
  usualLetters,
} from '../ui/single-keys.ts';
import { useStore } from '../ui/store.ts';

/** A key, or the single letter of a deed, and what it does. */
type Line = readonly [string | { readonly letter: LetterDeed }, string];

const letter = (deed: LetterDeed) => ({ letter: deed });

const KEYS: readonly (readonly [string, readonly Line[]])[] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'Find or do'],
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z', 'Redo'],
      [letter('help'), 'These keys'],
    ],
  ],
  [
    'On a placed piece',
    [
      ['Alt Up, Alt Down', 'Move it up or down'],
      ['Alt Home, Alt End', 'Move it to the top or the bottom'],
      [letter('beside-left'), 'Beside the text, left'],
      [letter('beside-right'), 'Beside the text, right'],
      [letter('centred'), 'Centred'],
      [letter('column'), 'As wide as the column'],
      [letter('breakout'), 'Out of the column'],
      [letter('bleed'), 'Edge to edge'],
      ['+, -', 'Wider, narrower'],
      [letter('paragraph'), 'Beside a paragraph that you name'],
      [letter('carry'), 'Carry it: into the text, to a want, back to the tray'],
      ['Enter', 'To its label'],
      ['Ctrl Enter', 'Choose it with others, wherever they stand'],
      ['Delete', 'Take it off the page'],
    ],
  ],
  [
    'In the text',
    [
      ['Ctrl F', 'Find on the page'],
      ['Ctrl K', 'Link the chosen words'],
    ],
  ],
  [
    'On the tray and the shelf',
    [
      ['Arrows', 'Go from piece to piece'],
      ['Enter', 'Place it, or open its label'],
      ['Space', 'Choose it'],
      ['Ctrl A', 'Choose all that are shown'],
      [letter('carry'), 'Carry it: to a folder, into the text, to a want'],
      ['Alt Left, Alt Right', 'Move it along the tray'],
      ['Ctrl Enter', 'Choose it with others, to make something of them'],
    ],
  ],
];

export function KeysHelp({ onClose }: { readonly onClose: () => void }) {
  const { areOn, letters } = useStore(singleKeys);
  const [isChanging, setChanging] = useState(false);
  return (
    <Panel
      title="Keys"
      about="Single letters act on what is selected, and never while you type."
      isOpen
      onClose={onClose}
    >
      <div className="mt-2 mb-3.5 flex flex-wrap items-center gap-x-4 gap-y-1">
        <Checkbox checked={areOn} onChange={switchSingleKeys}>
          Single keys act
        </Checkbox>
        {areOn ? (
          <Button kind="link" onClick={() => setChanging(!isChanging)}>
            {isChanging ? 'Done with changing' : 'Change the letters'}
          </Button>
        ) : null}
        {isChanging ? (
          <Button kind="link" onClick={usualLetters}>
            The usual letters
          </Button>
        ) : null}
      </div>
      {KEYS.map(([place, keys]) => (
        <section key={place}>
          <h3 className="text-lg">{place}</h3>
          <dl className="mt-1.5 mb-3.5 grid grid-cols-[130px_1fr] gap-x-4 gap-y-1.25">
            {keys.map(([key, does]) => {
              const isSingle = typeof key !== 'string';
              if (isSingle && !areOn) return null;
              return (
                <Fragment key={does}>
                  <dt className="text-right">
                    {isSingle && isChanging ? (
                      <LetterField deed={key.letter} now={letters[key.letter]} does={does} />
                    ) : (
                      <kbd className="rounded-sm border border-current px-1.25 font-mono text-2xs leading-4 font-normal">
                        {isSingle ? letters[key.letter].toUpperCase() : key}
                      </kbd>
                    )}
                  </dt>
                  <dd>{does}</dd>
                </Fragment>
              );
            })}
          </dl>
        </section>
      ))}
      <Button onClick={onClose}>Close</Button>
    </Panel>
  );
}

interface LetterFieldProps {
  readonly deed: LetterDeed;
  readonly now: string;
  readonly does: string;
}

/** The letter of a deed, changed by typing another; one that is taken is refused in words. */
function LetterField({ deed, now, does }: LetterFieldProps) {
  const [fault, setFault] = useState<string | null>(null);
  return (
    <>
      <Input
        className="inline-block w-10 text-center font-mono"
        aria-label={`Letter for: ${does}`}
        aria-invalid={fault ? true : undefined}
        value={now.toUpperCase()}
        onChange={(event) => setFault(chooseLetter(deed, event.target.value))}
      />
      <span className="block text-due" role="status">
        {fault}
      </span>
    </>
  );
}
