import { plainText } from '#core/page/inline.ts';
import { runsOf } from '#core/page/walk.ts';
import { Button } from '../ui/button.tsx';
import { sayTime } from '../ui/dates.ts';
import { Deeds } from '../ui/deeds.tsx';
import { Panel } from '../ui/panel.tsx';
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

interface ClashNoticeProps {
  readonly saving: SaveState;
  readonly onSettle: (way: 'both' | 'mine' | 'theirs') => void;
}

/** Two people on one page: both states are kept until the second saver has chosen. */
export function ClashNotice({ saving, onSettle }: ClashNoticeProps) {
  if (saving.kind !== 'clash') return null;
  const { theirs } = saving;
  const words = runsOf(theirs.doc).map(plainText).filter(Boolean);
  return (
    <Panel
      title={`${theirs.updatedBy} saved this page while you worked on it`}
      about={`Theirs is of ${sayTime(theirs.updatedAt)} and has ${theirs.doc.blocks.length} blocks. Yours is on the sheet, kept on this machine. Nothing is lost until you choose.`}
      isOpen
      onClose={() => undefined}
    >
      <p className="mt-3">Theirs begins:</p>
      <p className="text-soft">“{words.slice(0, 2).join(' ').slice(0, 220)}”</p>
      <Deeds>
        <Button kind="action" onClick={() => onSettle('both')}>
          Put both together
        </Button>
        <Button onClick={() => onSettle('mine')}>Go on with mine</Button>
        <Button onClick={() => onSettle('theirs')}>Go on with theirs</Button>
      </Deeds>
      <p className="mt-2.5 text-soft">
        Put together, each place takes the side that changed it; where both did, both stand one after the
        other.
      </p>
    </Panel>
  );
}
