import { Link } from 'react-router';
import type { Want } from '#core/page/model.ts';
import { SHAPE_WORDS } from '../pages/want-lines.tsx';
import { Button } from '../ui/button.tsx';

interface WantNoteProps {
  readonly want: Want;
  /** The page that wants it, with all that it wants. */
  readonly page: { readonly id: string; readonly wants: readonly Want[] };
}

/** The want that is gathered for. */
export function WantNote({ want, page }: WantNoteProps) {
  const next = page.wants.find(({ id, filledBy }) => filledBy === null && id !== want.id);
  return (
    <div
      className="mb-3 border border-dashed border-control px-3.25 py-2.25 data-[filled=true]:border-solid data-[filled=true]:border-action"
      data-filled={want.filledBy !== null}
    >
      <strong>
        {want.filledBy === null ? 'Wanted' : 'Filled'}: {want.purpose}
      </strong>
      <p className="text-soft">
        {SHAPE_WORDS[want.shape]}
        {want.leastWidth > 0 ? `, at least ${want.leastWidth} px wide` : ''}
      </p>
      {want.filledBy === null ? null : next ? (
        <Link to={`/gather?${new URLSearchParams({ page: page.id, want: next.id })}`}>
          Next: {next.purpose}
        </Link>
      ) : (
        <Link to={`/pages/${page.id}`}>Nothing else is wanted: back to the page</Link>
      )}
    </div>
  );
}

interface TakeProps {
  readonly hasPage: boolean;
  readonly want: Want | null;
  readonly onTake: (forWant: boolean) => void;
}

/** Takes what is open: for the want, onto the tray of the page, or onto the shelf. */
export function TakeButtons({ hasPage, want, onTake }: TakeProps) {
  return (
    <div className="sticky -bottom-3.5 -mx-3.5 mt-auto -mb-3.5 flex flex-wrap gap-2 border-t border-line bg-ground px-3.5 py-3">
      {want ? (
        <Button kind="action" onClick={() => onTake(true)}>
          Take it for this want
        </Button>
      ) : null}
      <Button kind={want ? 'plain' : 'action'} onClick={() => onTake(false)}>
        {hasPage ? 'To the tray' : 'To the shelf'}
      </Button>
    </div>
  );
}
