import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import * as v from 'valibot';
import { IdSchema } from '#core/page/id.ts';
import { FLOW_CONTENT, OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { partAround, setPartApart, unlinkPart } from './commands.ts';
import { KeptPartRow } from './row.tsx';

const IN_PART = `${FLOW_CONTENT.slice(0, -2)} | details | sideBox | cards | columns | gallery | beforeAfter | banner)+`;

/** A line at its side tells where a part begins and ends; what is in it looks as it does anywhere. */
const LOOK =
  'kept-part relative before:absolute before:inset-y-0 before:-left-3.5 before:border-l-2 before:border-dashed before:border-paper-soft';

const KeptPartNode = EditorNode.create({
  name: 'keptPart',
  group: 'block',
  content: IN_PART,
  defining: true,
  addAttributes: () => ({ part: { default: '', rendered: false } }),
  parseHTML: () => [{ tag: 'div.kept-part', getAttrs: ({ dataset }) => ({ part: partOf(dataset.part) }) }],
  renderHTML: ({ node, HTMLAttributes }) => [
    'div',
    mergeAttributes(HTMLAttributes, OF_SHEET, { class: LOOK, 'data-part': partOf(node.attrs.part) }),
    0,
  ],
});

function partOf(said: unknown): string {
  const read = v.safeParse(IdSchema, said);
  return read.success ? read.output : '';
}

export const keptPart: SheetKind = {
  types: ['keptPart'],
  nodes: () => [KeptPartNode],
  kept: ({ part }) => ({ part: partOf(part) }),
  call: (words) => `the kept part ${words}`,
  title: 'A kept part',
  ways: [
    {
      words: 'kept part',
      sort: 'around',
      isOn: (editor) => partAround(editor) !== null,
      apply: (editor) => {
        const part = partAround(editor);
        if (part) unlinkPart(editor, String(part.attrs.id));
        else setPartApart(editor);
      },
    },
  ],
  Row: KeptPartRow,
};
