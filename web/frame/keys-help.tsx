import { Fragment } from 'react';
import { Button } from '../ui/button.tsx';
import { Panel } from '../ui/panel.tsx';

const KEYS: readonly (readonly [string, readonly (readonly [string, string])[]])[] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'Find or do'],
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z', 'Redo'],
      ['?', 'These keys'],
    ],
  ],
  [
    'On a placed piece',
    [
      ['Alt Up, Alt Down', 'Move it up or down'],
      ['Alt Home, Alt End', 'Move it to the top or the bottom'],
      ['L, R', 'Beside the text, left or right'],
      ['C, W', 'Centred, as wide as the column'],
      ['O, E', 'Out of the column, edge to edge'],
      ['+, -', 'Wider, narrower'],
      ['N', 'Beside paragraph N'],
      ['M', 'Carry it: into the text, to a want, back to the tray'],
      ['Enter', 'To its label'],
      ['Delete', 'Take it off the page'],
    ],
  ],
  ['In the text', [['Ctrl K', 'Link the chosen words']]],
  [
    'On the tray and the shelf',
    [
      ['Arrows', 'Go from piece to piece'],
      ['Enter', 'Place it, or open its label'],
      ['Space', 'Choose it'],
      ['Ctrl A', 'Choose all that are shown'],
      ['M', 'Carry it: to a folder, into the text, to a want'],
      ['Alt Left, Alt Right', 'Move it along the tray'],
    ],
  ],
];

export function KeysHelp({ onClose }: { readonly onClose: () => void }) {
  return (
    <Panel
      title="Keys"
      about="Single letters act on what is selected, and never while you type."
      isOpen
      onClose={onClose}
    >
      {KEYS.map(([place, keys]) => (
        <section key={place}>
          <h3 className="text-lg">{place}</h3>
          <dl className="mt-1.5 mb-3.5 grid grid-cols-[130px_1fr] gap-x-4 gap-y-1.25">
            {keys.map(([key, does]) => (
              <Fragment key={key}>
                <dt className="text-right">
                  <kbd className="rounded-sm border border-current px-1.25 font-mono text-2xs leading-4 font-normal">
                    {key}
                  </kbd>
                </dt>
                <dd>{does}</dd>
              </Fragment>
            ))}
          </dl>
        </section>
      ))}
      <Button onClick={onClose}>Close</Button>
    </Panel>
  );
}
