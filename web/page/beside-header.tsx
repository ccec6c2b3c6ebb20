import type { Page } from '#api/pages.ts';
import { sayPageTitle } from '../pages/say-title.ts';
import { Button } from '../ui/button.tsx';
import type { SaveState } from './saver.ts';
import { saySaving } from './say-saving.ts';
import { TakeAway } from './take-away.tsx';

interface BesideHeaderProps {
  readonly page: Page;
  readonly title: string;
  /** What stands beside the sheet, in a few words. */
  readonly says: string;
  readonly saving: SaveState;
  readonly isEditable: boolean;
  readonly onBack: () => void;
  /** Saves what is not saved yet. */
  readonly beforeTaking: () => Promise<void>;
}

/** What the page is, what stands beside its sheet, and the way back. */
export function BesideHeader({
  page,
  title,
  says,
  saving,
  isEditable,
  onBack,
  beforeTaking,
}: BesideHeaderProps) {
  return (
    <header className="col-span-full flex min-h-14.5 flex-wrap items-center gap-x-3 gap-y-2 border-b border-line bg-panel px-4.5 py-1.25">
      <div className="min-w-0 flex-1 max-narrow:basis-full">
        <h1 className="truncate text-2xl">{sayPageTitle(title)}</h1>
        <p className="truncate text-sm text-soft">
          {says} · <span role="status">{saySaving(saving)}</span>
        </p>
      </div>
      <Button onClick={onBack}>Back to the sheet</Button>
      {isEditable ? <TakeAway pageId={page.id} beforeTaking={beforeTaking} /> : null}
    </header>
  );
}
