import type { Asset } from '#api/assets.ts';
import { CARDS_LIMIT } from '#core/page/blocks/cards/schema.ts';
import type { PageDoc } from '#core/page/model.ts';
import { placementsOf } from '#core/page/walk.ts';
import { LabelRow } from '../label/row.tsx';
import { pieces } from '../pieces/pieces.ts';
import { cardsOfPieces } from '../sheet/blocks/cards/of-pieces.ts';
import { afterSelection, takeAllOffTray } from '../sheet/commands.ts';
import { Button } from '../ui/button.tsx';
import { useStore } from '../ui/store.ts';
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
            <button
              type="button"
              className="grid w-fit cursor-pointer justify-items-start gap-1.5 rounded-sm border border-line bg-panel p-2 hover:border-ink disabled:cursor-not-allowed disabled:opacity-55"
              disabled={chosen.length > CARDS_LIMIT}
              onClick={() => {
                cardsOfPieces(editor, ids, afterSelection(editor));
                onDone();
              }}
            >
              <CardsDrawing count={chosen.length} />a row of cards
            </button>
            <p className="text-soft">
              Each piece begins a card, with its title as heading and its caption as words. It stands where
              the caret is.
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

const CARD = { width: 26, picture: 18, gap: 5 } as const;

/** How it will look: pictures side by side, each over its heading and its words; more than four in rows. */
function CardsDrawing({ count }: { readonly count: number }) {
  const across = Math.min(count, 4);
  const width = across * CARD.width + (across - 1) * CARD.gap;
  return (
    <svg width={width} height={34} viewBox={`0 0 ${width} 34`} aria-hidden="true" focusable="false">
      {Array.from({ length: across }, (_, at) => at * (CARD.width + CARD.gap)).map((x) => (
        <g key={x} className="fill-control">
          <rect x={x} y={0} width={CARD.width} height={CARD.picture} />
          <rect x={x} y={CARD.picture + 4} width={CARD.width * 0.7} height={3} className="fill-ink" />
          <rect x={x} y={CARD.picture + 10} width={CARD.width} height={2} />
          <rect x={x} y={CARD.picture + 14} width={CARD.width * 0.85} height={2} />
        </g>
      ))}
    </svg>
  );
}
