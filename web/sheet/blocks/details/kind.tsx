import { Node as EditorNode, mergeAttributes } from '@tiptap/core';
import * as v from 'valibot';
import { messagesFor } from '#core/messages/messages.ts';
import { SummarySchema } from '#core/page/blocks/details/schema.ts';
import { FLOW_CONTENT, OF_SHEET, withoutHead, wrapWay } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { DetailsRow } from './row.tsx';

/** On the sheet it is always open, so that what is in it can be worked on. */
const detailsNode = (more: string) =>
  EditorNode.create({
    name: 'details',
    group: 'block',
    content: FLOW_CONTENT,
    defining: true,
    addAttributes: () => ({ summary: { default: '', rendered: false } }),
    parseHTML: () =>
      ['div.folded', 'details'].map((tag) => ({ tag, contentElement: insideOf, getAttrs: readAttributes })),
    renderHTML({ node, HTMLAttributes }) {
      const summary = String(node.attrs.summary);
      return [
        'div',
        mergeAttributes(HTMLAttributes, OF_SHEET, { class: 'folded' }),
        ['div', { class: 'folded-summary', contenteditable: 'false' }, summary || more],
        ['div', { class: 'folded-inside' }, 0],
      ];
    },
  });

const insideOf = (element: HTMLElement) => withoutHead(element, '.folded-inside', 'summary');

function readAttributes(element: HTMLElement): { readonly summary: string } {
  const said = element.querySelector(':scope > :is(.folded-summary, summary)')?.textContent ?? '';
  const summary = v.safeParse(SummarySchema, said);
  return { summary: summary.success ? summary.output : '' };
}

export const details: SheetKind = {
  types: ['details'],
  nodes: ({ rules }) => [detailsNode(messagesFor(rules.language).more)],
  kept: ({ summary }) => ({ summary }),
  says: { summary: 'the head of a folded section' },
  call: (words) => `the folded section ${words}`,
  title: 'A folded section',
  ways: [wrapWay('folded section', 'details')],
  Row: DetailsRow,
};
