import {
  CARDS_LIMIT,
  CARDS_PER_ROW,
  type Card,
  cardsStackBelow,
  isLastAlone,
} from '#core/page/blocks/cards/schema.ts';
import { plainText } from '#core/page/inline.ts';
import { columnRoom, sharedRoom, widthAt } from '#core/page/room.ts';
import { placementsOf } from '#core/page/walk.ts';
import { LabelRow } from '../../../label/row.tsx';
import { Button } from '../../../ui/button.tsx';
import { OneOf } from '../../../ui/chips.tsx';
import { changeBlock } from '../../commands.ts';
import { GapField } from '../gap-field.tsx';
import type { BlockRowProps } from '../kind.ts';
import { ShapeChoice } from '../shape-choice.tsx';
import { WholeLinkField } from '../whole-link-field.tsx';
import { addCard, moveCard, removeCard } from './commands.ts';

const WIDE_PX = 2000;

/** How the cards of a row share its width, in which order they stand, and what that comes to. */
export function CardsRow({ editor, block, rules }: BlockRowProps) {
  if (block.type !== 'cards') return null;
  const { id, perRow, gap } = block.attrs;
  const from = cardsStackBelow(perRow, rules);
  const shared = sharedRoom(columnRoom(rules), { from, count: perRow, gap });
  return (
    <LabelRow name="Cards">
      <OneOf
        about="Cards in a row"
        value={String(perRow)}
        choices={CARDS_PER_ROW.map((count) => [String(count), `${count} in a row`] as const)}
        onChoose={(chosen) =>
          changeBlock(editor, id, { perRow: Number(chosen) }, 'how many cards stand in a row')
        }
      />
      <ShapeChoice editor={editor} id={id} placements={placementsOf({ blocks: block.content })} />
      <GapField
        gap={gap}
        onKeep={(kept) => changeBlock(editor, id, { gap: kept }, 'the gap between cards')}
      />
      <p>
        Each card gets {Math.round(widthAt(shared, WIDE_PX))} px; under {from} px one stands below the other,
        in this order.
      </p>
      {isLastAlone(block) ? <p className="text-due">The last one stands alone in its row.</p> : null}
      <ol className="list-decimal pl-5">
        {block.content.map((card) => (
          <li key={card.attrs.id}>{callCard(card)}</li>
        ))}
      </ol>
      <div>
        <Button disabled={block.content.length >= CARDS_LIMIT} onClick={() => addCard(editor, id)}>
          Add a card
        </Button>
      </div>
    </LabelRow>
  );
}

/** A card by its heading, or its first words. */
function callCard({ content }: Card): string {
  const said = content.flatMap((block) =>
    block.type === 'heading' || block.type === 'paragraph' ? plainText(block.content).trim() : [],
  );
  return (
    said.find((words) => words !== '') ??
    (content.some(({ type }) => type === 'placement') ? 'A picture' : 'Empty')
  );
}

/** The card that the caret is in: where it leads, and its place in the row. */
export function CardRow({ editor, block }: BlockRowProps) {
  if (block.type !== 'card') return null;
  const { id } = block.attrs;
  return (
    <LabelRow name="This card">
      <p>{callCard(block)}</p>
      <WholeLinkField editor={editor} id={id} what="card" value={block.attrs.link} />
      <div className="flex flex-wrap items-baseline gap-x-3">
        <Button kind="link" onClick={() => moveCard(editor, id, -1)}>
          Move left
        </Button>
        <Button kind="link" onClick={() => moveCard(editor, id, 1)}>
          Move right
        </Button>
        <Button kind="link" onClick={() => removeCard(editor, id)}>
          Remove the card
        </Button>
      </div>
      <p className="text-soft">Alt and an arrow move it too.</p>
    </LabelRow>
  );
}
