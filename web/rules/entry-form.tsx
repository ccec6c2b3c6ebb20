import { useState } from 'react';
import type { HostEntry } from '#core/embed/host.ts';
import { Button } from '../ui/button.tsx';
import { TextArea } from '../ui/input.tsx';

interface EntryFormProps {
  readonly entry: HostEntry;
  readonly isEditable: boolean;
  /** What the other way out is called. */
  readonly away: string;
  readonly onSave: (text: string) => void;
  readonly onAway: () => void;
}

/** The open JSON of one host. */
export function EntryForm({ entry, isEditable, away, onSave, onAway }: EntryFormProps) {
  const [text, setText] = useState(() => JSON.stringify(entry, null, 2));
  return (
    <div>
      <TextArea
        className="font-mono text-mono"
        aria-label={`The entry of ${entry.name}`}
        rows={14}
        spellCheck={false}
        readOnly={!isEditable}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      {isEditable ? (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <Button onClick={() => onSave(text)}>Save the entry</Button>
          <Button kind="link" onClick={onAway}>
            {away}
          </Button>
        </div>
      ) : null}
    </div>
  );
}
