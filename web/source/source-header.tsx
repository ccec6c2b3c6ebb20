import type { Page } from '#api/pages.ts';
import type { SaveState } from '../page/saver.ts';
import { saySaving } from '../page/say-saving.ts';
import { TakeAway } from '../page/take-away.tsx';
import { sayPageTitle } from '../pages/say-title.ts';
import { Button } from '../ui/button.tsx';

interface SourceHeaderProps {
  readonly page: Page;
  readonly title: string;
  readonly saving: SaveState;
  readonly isEditable: boolean;
  readonly onBack: () => void;
  /** Saves what is not saved yet. */
  readonly beforeTaking: () => Promise<void>;
}

/** What the source is of, and the way back. */
export function SourceHeader({ page, title, saving, isEditable, onBack, beforeTaking }: SourceHeaderProps) {
  return (
    <header className="col-span-full flex min-h-14.5 flex-wrap items-center gap-x-3 gap-y-2 border-b border-line bg-panel px-4.5 py-1.25">
      <div className="min-w-0 flex-1 max-narrow:basis-full">
        <h1 className="truncate text-2xl">{sayPageTitle(title)}</h1>
        <p className="truncate text-sm text-soft">
          source for the {page.target.rules.name} · files and credits are put in when it goes out ·{' '}
          <span role="status">{saySaving(saving)}</span>
        </p>
      </div>
      <Button onClick={onBack}>Back to the sheet</Button>
      {isEditable ? <TakeAway pageId={page.id} beforeTaking={beforeTaking} /> : null}
    </header>
  );
}
