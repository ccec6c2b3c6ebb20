import { COLUMN_SHARE, columnsStackBelow, sumOfShares } from '#core/page/blocks/columns/schema.ts';
import { columnRoom, widthAt } from '#core/page/room.ts';
import { MeasuredField, type Read } from '../../../form/measured-field.tsx';
import { LabelRow } from '../../../label/row.tsx';
import { Button } from '../../../ui/button.tsx';
import { OneOf } from '../../../ui/chips.tsx';
import { changeBlock } from '../../commands.ts';
import { blockOfType } from '../arrange.ts';
import { GapField } from '../gap-field.tsx';
import type { BlockRowProps } from '../kind.ts';
import { addColumn, leadColumn, MOST_COLUMNS, removeColumn, shareColumns } from './commands.ts';

const WIDE_PX = 2000;
const ORDINALS = ['the first', 'the second', 'the third', 'the fourth'] as const;

/** How columns share the width, and which comes first where they stand one below the other. */
export function ColumnsRow({ editor, block, rules }: BlockRowProps) {
  if (block.type !== 'columns') return null;
  const { id, gap } = block.attrs;
  const shares = block.content.map(({ attrs }) => attrs.share);
  const from = columnsStackBelow(shares.length, rules);
  const left = widthAt(columnRoom(rules), WIDE_PX) - gap * (shares.length - 1);
  const widths = shares.map((share) => Math.round((left * share) / sumOfShares(block.content)));
  const lead = Math.max(
    0,
    block.content.findIndex(({ attrs }) => attrs.leads),
  );
  return (
    <LabelRow name="Columns">
      <MeasuredField
        name="Shares"
        says={sayShares(shares)}
        read={(text) => readShares(text, shares.length)}
        onKeep={(kept) => shareColumns(editor, id, kept)}
        isSmall
      />
      <GapField
        gap={gap}
        onKeep={(kept) => changeBlock(editor, id, { gap: kept }, 'the gap between columns')}
      />
      <p>
        {widths.join(', ')} px; under {from} px one stands below the other.
      </p>
      <p className="text-soft">On a phone comes first</p>
      <OneOf
        about="Which comes first on a phone"
        value={String(lead)}
        choices={shares.map((_share, at) => [String(at), ORDINALS[at] ?? `number ${at + 1}`] as const)}
        onChoose={(chosen) => leadColumn(editor, id, Number(chosen))}
      />
      <div className="flex flex-wrap items-baseline gap-x-3">
        <Button disabled={shares.length >= MOST_COLUMNS} onClick={() => addColumn(editor, id)}>
          Add a column
        </Button>
        <Button
          kind="link"
          onClick={() => {
            const here = blockOfType(editor, 'column');
            if (here) removeColumn(editor, String(here.node.attrs.id));
          }}
        >
          Remove this column
        </Button>
      </div>
    </LabelRow>
  );
}

/** Shares as whole percents that make a hundred. */
export function percents(shares: readonly number[]): readonly number[] {
  const sum = shares.reduce((all, share) => all + share, 0);
  const whole = shares.map((share) => Math.round((share / sum) * 100));
  const over = whole.reduce((all, share) => all + share, 0) - 100;
  const widest = whole.indexOf(Math.max(...whole));
  return whole.map((share, at) => (at === widest ? share - over : share));
}

/** "60 : 40"; three alike are no whole percents, and said as what they are to each other. */
function sayShares(shares: readonly number[]): string {
  const isEven = new Set(shares).size === 1 && 100 % shares.length !== 0;
  return (isEven ? shares.map(() => 1) : percents(shares)).join(' : ');
}

function readShares(text: string, count: number): Read<readonly number[]> {
  const said = text
    .split(/[^\d]+/)
    .filter(Boolean)
    .map(Number);
  const isWhole =
    said.length === count && said.every((one) => one >= COLUMN_SHARE.least && one <= COLUMN_SHARE.most);
  return isWhole
    ? { value: said }
    : { fault: `Shares are written as ${sayShares(Array.from({ length: count }, () => 1))}.` };
}
