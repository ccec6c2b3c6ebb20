import * as v from 'valibot';
import { DividerSchema } from '#core/page/blocks/before-after/schema.ts';
import { MeasuredField, type Read } from '../../../form/measured-field.tsx';
import { LabelRow } from '../../../label/row.tsx';
import { Button } from '../../../ui/button.tsx';
import { changeBlock, movePlacement } from '../../commands.ts';
import type { BlockRowProps } from '../kind.ts';
import { TakeApartLink } from '../take-apart-link.tsx';

/** Where the divider between two pictures stands at first, and which of them is before. */
export function BeforeAfterRow({ editor, block }: BlockRowProps) {
  if (block.type !== 'beforeAfter') return null;
  const { id, divider } = block.attrs;
  const [, after] = block.content;
  return (
    <LabelRow name="Before and after">
      <MeasuredField
        name="Divider at"
        says={`${divider}%`}
        read={readDivider}
        onKeep={(kept) => changeBlock(editor, id, { divider: kept }, 'where the divider stands')}
        isBeside
        isSmall
      />
      {after ? (
        <p>
          Readers move the divider by pointer or arrow keys. Where no script runs, one picture stands below
          the other.
        </p>
      ) : (
        <p className="text-due">It has one picture. Move another into it, or take it apart.</p>
      )}
      <div className="flex flex-wrap items-baseline gap-x-3">
        {after ? (
          <Button kind="link" onClick={() => movePlacement(editor, after.attrs.id, 'up')}>
            Exchange them
          </Button>
        ) : null}
        <TakeApartLink editor={editor} id={id} change="taking the before-and-after apart" />
      </div>
    </LabelRow>
  );
}

function readDivider(text: string): Read<number> {
  const number = /^\s*(\d{1,4})\s*%?\s*$/.exec(text)?.[1];
  if (number === undefined) return { fault: 'The place of the divider is written as 50%.' };
  const read = v.safeParse(DividerSchema, Number(number));
  return read.success ? { value: read.output } : { fault: read.issues[0].message };
}
