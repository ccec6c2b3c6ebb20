import { useState } from 'react';
import type { PreviewRow } from '#api/runs.ts';
import { nameFault, sayNameFault } from '#core/naming/rule.ts';
import { MeasuredField } from '../form/measured-field.tsx';
import { Warnings } from './warnings.tsx';

interface NameCellProps {
  readonly row: PreviewRow;
  /** Writes this row's own name; null gives it back to the run's naming. Null where nothing can be changed. */
  readonly onStem: ((stem: string | null) => void) | null;
  /** Told when what is typed is no name, and when it is one again. */
  readonly onFault?: (isFaulty: boolean) => void;
}

/** What a piece will be called and where it will lie; pressed, the name can be written by hand. */
export function NameCell({ row, onStem, onFault }: NameCellProps) {
  const [isOpen, setOpen] = useState(false);
  const { before, after } = row;
  return (
    <>
      {isOpen && onStem ? (
        <NameForm
          stem={after.stem}
          onStem={(stem) => {
            setOpen(false);
            if (stem !== after.stem) onStem(stem);
          }}
          onClose={() => setOpen(false)}
          {...(onFault ? { onFault } : {})}
        />
      ) : onStem ? (
        <button
          type="button"
          className="border-b border-dashed border-control py-px text-left font-mono text-mono wrap-anywhere hover:border-b hover:border-b-action hover:bg-action-soft"
          aria-label={`${after.stem}: write another name`}
          onClick={() => setOpen(true)}
        >
          {after.stem}
        </button>
      ) : (
        <span className="font-mono text-mono">{after.stem}</span>
      )}
      {before.folder === after.folder ? null : (
        <span className="block text-sm leading-4 text-soft">in {after.folder.replaceAll('/', ' / ')}</span>
      )}
      {before.title === after.title ? null : (
        <span className="block text-sm leading-4 text-soft">“{after.title}”</span>
      )}
      <Warnings warnings={row.warnings} place="name" />
    </>
  );
}

interface NameFormProps {
  readonly stem: string;
  readonly onStem: (stem: string | null) => void;
  readonly onClose: () => void;
  readonly onFault?: (isFaulty: boolean) => void;
}

function NameForm({ stem, onStem, onClose, onFault }: NameFormProps) {
  return (
    <MeasuredField<string | null>
      name="Name"
      isNameHidden
      autoFocus
      says={stem}
      maxLength={200}
      read={(text) => {
        const fault = text === '' ? null : nameFault(text);
        return fault ? { fault: sayNameFault(fault) } : { value: text === '' ? null : text };
      }}
      tidy={(text) => text.trimStart().replace(/\s+/gu, '-')}
      onKeep={onStem}
      {...(onFault ? { onFault } : {})}
      onLeave={onClose}
    />
  );
}
