import { useState } from 'react';
import type { Cue } from '#core/film/cue.ts';
import { shifted } from '#core/film/judge-cues.ts';
import { Button } from '../ui/button.tsx';
import { Deeds } from '../ui/deeds.tsx';
import { Field } from '../ui/field.tsx';
import { Input } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';
import { shortTime } from './say-time.ts';

interface AllPanelProps {
  readonly cues: readonly Cue[];
  readonly onChange: (cues: readonly Cue[]) => void;
  readonly onClose: () => void;
}

/** All captions earlier or later, and drawn out or pressed together. */
export function AllPanel({ cues, onChange, onClose }: AllPanelProps) {
  const [by, setBy] = useState('0');
  const [percent, setPercent] = useState('100');
  const seconds = Number(by.replace(',', '.').replace('−', '-'));
  const factor = Number(percent.replace(',', '.')) / 100;
  const isGood = Number.isFinite(seconds) && factor > 0.2 && factor < 5;
  const made = isGood ? shifted(cues, Math.round(seconds * 1000), factor) : cues;
  const [first, last] = [made[0], made.at(-1)];
  return (
    <Panel title="Move or stretch all" isOpen onClose={onClose}>
      <div className="mt-2 grid grid-cols-2 gap-4">
        <Field name="Later by seconds" hint="Less than nothing moves them earlier.">
          {(control) => (
            <Input
              {...control}
              className="font-mono text-mono"
              value={by}
              onChange={({ target }) => setBy(target.value)}
            />
          )}
        </Field>
        <Field
          name="Stretched to per cent"
          hint="104 for a film that runs at 24 pictures a second instead of 25."
        >
          {(control) => (
            <Input
              {...control}
              className="font-mono text-mono"
              value={percent}
              onChange={({ target }) => setPercent(target.value)}
            />
          )}
        </Field>
      </div>
      <p className={isGood ? 'mt-2' : 'mt-2 text-due'} role="status">
        {isGood && first && last
          ? `The first then begins at ${shortTime(first.from)}, the last ends at ${shortTime(last.to)}.`
          : 'Say seconds such as -1.5, and per cent such as 104.'}
      </p>
      <Deeds>
        <Button
          kind="action"
          disabled={!isGood}
          onClick={() => {
            onChange(made);
            onClose();
          }}
        >
          Move them
        </Button>
        <Button onClick={onClose}>Leave them</Button>
      </Deeds>
    </Panel>
  );
}
