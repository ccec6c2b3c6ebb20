import { TableCaptionSchema } from '#core/page/blocks/table/schema.ts';
import { LabelRow } from '../../../label/row.tsx';
import { Button } from '../../../ui/button.tsx';
import { Chips } from '../../../ui/chips.tsx';
import type { BlockRowProps } from '../kind.ts';
import { LineForm } from '../line-form.tsx';
import { canDoToTable, doToTable, moveLine, standInTable, type TableDeed } from './commands.ts';

const HEADINGS = [
  ['head-row', 'first row'],
  ['head-column', 'first column'],
] as const;

/** The table that the caret is in: what it is called, which of its cells are headings, and its rows and columns. */
export function TableLabel({ editor, block }: BlockRowProps) {
  const stand = standInTable(editor);
  if (block.type !== 'table' || !stand) return null;
  const { rows, columns, hasHeadRow, hasHeadColumn } = stand;
  const pressed = [
    ...(hasHeadRow ? ['head-row' as const] : []),
    ...(hasHeadColumn ? ['head-column' as const] : []),
  ];
  return (
    <>
      <LabelRow name="Table">
        <p>
          {say(rows, 'row')}, {say(columns, 'column')}. It scrolls in itself where it is wider than the
          screen.
        </p>
        <LineForm
          editor={editor}
          id={block.attrs.id}
          attribute="caption"
          value={block.attrs.caption}
          schema={TableCaptionSchema}
          label="Caption"
          placeholder="High water at the sluice"
          maxLength={300}
          change="the caption of the table"
        />
        <Deeds editor={editor} deeds={[['out', 'Remove the table']]} />
      </LabelRow>
      <LabelRow name="Headings">
        <Chips
          keepsFocus
          about="Which cells are headings"
          pressed={pressed}
          choices={HEADINGS}
          onPress={(deed) => doToTable(editor, deed)}
        />
        {pressed.length === 0 ? (
          <p className="text-due">None yet. Whoever hears the table does not know what a figure is of.</p>
        ) : null}
      </LabelRow>
      <LabelRow name="This row">
        <Deeds
          editor={editor}
          deeds={[
            ['row-above', 'Add above'],
            ['row-below', 'Add below'],
            ['row-out', 'Take out'],
          ]}
        />
        <Moves editor={editor} line="row" words={['Move up', 'Move down']} />
      </LabelRow>
      <LabelRow name="This column">
        <Deeds
          editor={editor}
          deeds={[
            ['column-left', 'Add left'],
            ['column-right', 'Add right'],
            ['column-out', 'Take out'],
          ]}
        />
        <Moves editor={editor} line="column" words={['Move left', 'Move right']} />
      </LabelRow>
      <LabelRow name="Cells">
        <Deeds
          editor={editor}
          deeds={[
            ['merge', 'Merge'],
            ['split', 'Split'],
          ]}
        />
        <p className="text-soft">
          Drag over cells to choose several. Tab goes to the next one; Alt and an arrow move the row or the
          column.
        </p>
      </LabelRow>
    </>
  );
}

const say = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`;

const ROW_LOOK = 'flex flex-wrap items-baseline gap-x-3';

interface DeedsProps {
  readonly editor: BlockRowProps['editor'];
  readonly deeds: readonly (readonly [deed: TableDeed, words: string])[];
}

/** Pressing one leaves the caret in its cell. */
function Deeds({ editor, deeds }: DeedsProps) {
  return (
    <div className={ROW_LOOK}>
      {deeds.map(([deed, words]) => (
        <Button
          key={deed}
          kind="link"
          disabled={!canDoToTable(editor, deed)}
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => doToTable(editor, deed)}
        >
          {words}
        </Button>
      ))}
    </div>
  );
}

interface MovesProps {
  readonly editor: BlockRowProps['editor'];
  readonly line: 'row' | 'column';
  readonly words: readonly [back: string, forth: string];
}

function Moves({ editor, line, words: [back, forth] }: MovesProps) {
  return (
    <div className={ROW_LOOK}>
      {(
        [
          [back, -1],
          [forth, 1],
        ] as const
      ).map(([words, by]) => (
        <Button
          key={words}
          kind="link"
          onMouseDown={(event) => event.preventDefault()}
          onClick={() => moveLine(editor, line, by)}
        >
          {words}
        </Button>
      ))}
    </div>
  );
}
