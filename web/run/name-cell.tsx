import { type FormEvent, useState } from 'react';
import type { PreviewRow } from '#api/runs.ts';
import { nameFault, sayNameFault } from '#core/naming/names.ts';
import { Input } from '../ui/input.tsx';
import { CELL_LOOK } from './cell-look.ts';
import { Warnings } from './warnings.tsx';

interface NameCellProps {
  readonly row: PreviewRow;
  /** Writes this row's own name; null gives it back to the run's naming. Null where nothing can be changed. */
  readonly onStem: ((stem: string | null) => void) | null;
}

/** What a piece will be called and where it will lie; pressed, the name can be written by hand. */
export function NameCell({ row, onStem }: NameCellProps) {
  const [isOpen, setOpen] = useState(false);
  const { before, after } = row;
  return (
    <td className={CELL_LOOK}>
      {isOpen && onStem ? (
        <NameForm
          stem={after.stem}
          onStem={(stem) => {
            setOpen(false);
            if (stem !== after.stem) onStem(stem);
          }}
          onClose={() => setOpen(false)}
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
    </td>
  );
}

interface NameFormProps {
  readonly stem: string;
  readonly onStem: (stem: string | null) => void;
  readonly onClose: () => void;
}

function NameForm({ stem, onStem, onClose }: NameFormProps) {
  const [typed, setTyped] = useState(stem);
  const [isTried, setTried] = useState(false);
  const fault = typed.trim() === '' ? undefined : nameFault(typed.trim());
  const submit = (event?: FormEvent) => {
    event?.preventDefault();
    if (fault) setTried(true);
    else onStem(typed.trim() === '' ? null : typed.trim());
  };
  return (
    <form onSubmit={submit}>
      <Input
        autoFocus
        className="font-mono text-mono"
        aria-label="Name"
        aria-invalid={isTried && fault ? true : undefined}
        value={typed}
        onFocus={(event) => event.target.select()}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={() => submit()}
        onKeyDown={(event) => {
          if (event.key === 'Escape') onClose();
        }}
      />
      {isTried && fault ? (
        <span className="block text-sm leading-4 text-due" role="alert">
          {sayNameFault(fault)}
        </span>
      ) : null}
    </form>
  );
}
