import type { Asset } from '#api/assets.ts';
import type { PageDoc } from '#core/page/model.ts';
import { placementsOf } from '#core/page/walk.ts';
import { LabelRow } from '../label/row.tsx';
import { pieces } from '../pieces/pieces.ts';
import { ofTray } from '../sheet/blocks/gathered.ts';
import { takeAllOffTray } from '../sheet/commands.ts';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
import { Arrangements } from './arrangements.tsx';
import type { PageSession } from './use-page-session.ts';

interface SeveralCardProps {
  readonly session: PageSession;
  readonly page: PageDoc;
  readonly ids: readonly string[];
  readonly isEditable: boolean;
  readonly onDone: () => void;
}

const titleOf = (asset: Asset) => asset.label.title || asset.stem;

/** The label of several pieces of the tray: what can be made of them. */
export function SeveralCard({ session, page, ids, isEditable, onDone }: SeveralCardProps) {
  const known = useStore(pieces);
  const chosen = ids.flatMap((id) => known.get(id) ?? []);
  const placed = new Set(placementsOf(page).map(({ asset }) => asset));
  const free = ids.filter((id) => !placed.has(id));
  const { editor } = session;
  return (
    <article
      className="border-t-7 border-ink bg-panel px-3.75 pb-2 shadow-card"
      aria-label={`Label of ${chosen.length} pieces`}
    >
      <header className="pt-3 pb-2.75">
        <h2 className="font-serif text-3xl leading-tight font-normal italic">{chosen.length} pieces</h2>
        <p className="mt-0.75 text-soft">in the order in which they were chosen</p>
      </header>
      <LabelRow name="Pieces">
        <ol className="list-decimal pl-5">
          {chosen.map((asset) => (
            <li key={asset.id}>{titleOf(asset)}</li>
          ))}
        </ol>
      </LabelRow>
      {isEditable ? (
        <>
          <LabelRow name="Make">
            <Arrangements
              pieces={chosen}
              onMake={(make) => {
                make(editor, ofTray(editor, ids));
                onDone();
              }}
            />
            <p className="text-soft">
              It stands where the caret is, in the order in which the pieces were chosen. On a card, the title
              of a piece is the heading and its caption the words. Links say the kind and size of a file, and
              a picture opens larger from its.
            </p>
          </LabelRow>
          <LabelRow name="Choice">
            <div className="flex flex-wrap gap-x-3">
              {free.length > 0 ? (
                <Button
                  kind="link"
                  onClick={() => {
                    takeAllOffTray(editor, free);
                    onDone();
                  }}
                >
                  {free.length === ids.length
                    ? 'Take them off the tray'
                    : `Take ${free.length === 1 ? 'the one' : `the ${free.length}`} not placed off the tray`}
                </Button>
              ) : null}
              <Button kind="link" onClick={onDone}>
                Choose none
              </Button>
            </div>
          </LabelRow>
        </>
      ) : null}
    </article>
  );
}
