import { Button } from '../ui/button.tsx';
import type { SaveState } from './saver.ts';

interface SaveNoticeProps {
  readonly saving: SaveState;
  readonly recovered: boolean;
  readonly onAgain: () => void;
}

/** Says so when the page is not on the server: what happened, what is kept, what to do. */
export function SaveNotice({ saving, recovered, onAgain }: SaveNoticeProps) {
  if (saving.kind === 'kept' || saving.kind === 'refused') {
    return (
      <div
        className="col-span-full flex flex-wrap items-center gap-x-3.5 gap-y-1.5 border-b border-line bg-due-soft px-4.5 py-1.75"
        role="alert"
      >
        <span>{saving.why}</span>
        <Button onClick={onAgain}>Try again now</Button>
      </div>
    );
  }
  if (recovered && saving.kind !== 'saved') {
    return (
      <div className="col-span-full flex flex-wrap items-center gap-x-3.5 gap-y-1.5 border-b border-line bg-due-soft px-4.5 py-1.75">
        Your last changes had not been saved. They were kept on this machine and are back on the sheet.
      </div>
    );
  }
  return null;
}
