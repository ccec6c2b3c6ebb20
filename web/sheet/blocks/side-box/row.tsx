import type { Editor } from '@tiptap/core';
import * as v from 'valibot';
import {
  type BoxPosition,
  BoxShareSchema,
  BoxTitleSchema,
  type SideBox,
} from '#core/page/blocks/side-box/schema.ts';
import { MeasuredField, type Read } from '../../../form/measured-field.tsx';
import { LabelRow } from '../../../label/row.tsx';
import { OneOf } from '../../../ui/chips.tsx';
import { changeBlock } from '../../commands.ts';
import type { BlockRowProps } from '../kind.ts';
import { LineForm } from '../line-form.tsx';

const POSITIONS: readonly (readonly [BoxPosition, string])[] = [
  ['beside-left', 'beside left'],
  ['beside-right', 'beside right'],
  ['column', 'column'],
];

interface RowProps {
  readonly editor: Editor;
  readonly attrs: SideBox['attrs'];
}

/** The title of a side box, where it stands, and how much of the width it takes there. */
export function SideBoxRow({ editor, block }: BlockRowProps) {
  if (block.type !== 'sideBox') return null;
  const { attrs } = block;
  return (
    <LabelRow name="Side box">
      <OneOf
        about="Where the box stands"
        value={attrs.position}
        choices={POSITIONS}
        onChoose={(position) => changeBlock(editor, attrs.id, { position }, 'where the box stands')}
      />
      {attrs.position === 'column' ? null : <ShareField editor={editor} attrs={attrs} />}
      <LineForm
        editor={editor}
        id={attrs.id}
        attribute="title"
        value={attrs.title}
        schema={BoxTitleSchema}
        label="Title"
        placeholder="What to bring"
        maxLength={300}
        change="the title of the box"
      />
    </LabelRow>
  );
}

function ShareField({ editor, attrs: { id, share } }: RowProps) {
  return (
    <MeasuredField
      name="Width"
      says={`${share}%`}
      read={readShare}
      onKeep={(kept) => changeBlock(editor, id, { share: kept }, 'the width of the box')}
      isBeside
      isSmall
    />
  );
}

function readShare(text: string): Read<number> {
  const number = /^\s*(\d{1,3})\s*%?\s*$/.exec(text)?.[1];
  if (number === undefined) return { fault: 'A width is written as 40%.' };
  const read = v.safeParse(BoxShareSchema, Number(number));
  return read.success ? { value: read.output } : { fault: read.issues[0].message };
}
