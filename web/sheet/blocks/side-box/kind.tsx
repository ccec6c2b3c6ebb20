import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import * as v from 'valibot';
import { boxStyle } from '#core/page/blocks/side-box/laid-out.ts';
import { BOX_POSITIONS, BOX_SHARE, SideBoxSchema } from '#core/page/blocks/side-box/schema.ts';
import { FLOW_CONTENT, OF_SHEET, withoutHead, wrapWay } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { SideBoxRow } from './row.tsx';

const { id: _id, ...ENTRIES } = SideBoxSchema.entries.attrs.entries;
const AttributesSchema = v.object(ENTRIES);
type Attributes = v.InferOutput<typeof AttributesSchema>;
const USUAL: Attributes = { title: '', position: 'beside-right', share: BOX_SHARE.usual };

const SideBoxNode = EditorNode.create({
  name: 'sideBox',
  group: 'block',
  content: FLOW_CONTENT,
  defining: true,
  addAttributes: () => ({
    title: { default: USUAL.title, rendered: false },
    position: { default: USUAL.position, rendered: false },
    share: { default: USUAL.share, rendered: false },
  }),
  parseHTML: () => [{ tag: 'aside.box', contentElement: insideOf, getAttrs: readAttributes }],
  renderHTML({ node, HTMLAttributes }) {
    const attrs = attributesOf(node.attrs);
    const title =
      attrs.title === ''
        ? []
        : [['p', { class: 'box-title', contenteditable: 'false' }, attrs.title] as const];
    const said = {
      class: `box ${attrs.position}`,
      style: boxStyle(attrs),
      'data-box': JSON.stringify(attrs),
    };
    return [
      'aside',
      mergeAttributes(HTMLAttributes, OF_SHEET, said),
      ...title,
      ['div', { class: 'box-inside' }, 0],
    ];
  },
});

/** Attributes as a page has them; those of a box that nobody changed for what cannot be read. */
function attributesOf(said: unknown): Attributes {
  const read = v.safeParse(AttributesSchema, said);
  return read.success ? read.output : USUAL;
}

const insideOf = (element: HTMLElement) => withoutHead(element, '.box-inside', '.box-title');

function readAttributes(element: HTMLElement): Attributes {
  return attributesOf({
    title: element.querySelector(':scope > .box-title')?.textContent ?? '',
    position: BOX_POSITIONS.find((position) => element.classList.contains(position)),
    share: Number.parseInt(element.style.getPropertyValue('--w'), 10),
  });
}

export const sideBox: SheetKind = {
  types: ['sideBox'],
  nodes: () => [SideBoxNode],
  kept: ({ title, position, share }) => ({ title, position, share }),
  says: { title: 'the title of a side box' },
  call: (words) => `the side box ${words}`,
  title: 'A side box',
  ways: [wrapWay('side box', 'sideBox')],
  Row: SideBoxRow,
};
