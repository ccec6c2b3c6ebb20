import { Node as EditorNode, mergeAttributes, wrappingInputRule } from '@tiptap/core';
import * as v from 'valibot';
import { AttributionSchema, CiteSchema } from '#core/page/blocks/quotation/schema.ts';
import { onSheet } from '../../on-sheet.ts';
import { OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { QuotationRow } from './row.tsx';

const QuotationNode = EditorNode.create({
  name: 'quotation',
  group: 'block',
  content: '(paragraph | bulletList | orderedList | placement | pictureOffer)+',
  defining: true,
  addAttributes: () => ({
    attribution: { default: '', rendered: false },
    cite: { default: '', rendered: false },
  }),
  parseHTML: () => [
    { tag: 'figure.quoted', contentElement: 'blockquote', getAttrs: readAttributes },
    { tag: 'blockquote', getAttrs: readAttributes },
  ],
  renderHTML({ node }) {
    const { attribution, cite } = node.attrs;
    const name = String(attribution);
    const quote = ['blockquote', mergeAttributes(OF_SHEET, cite ? { cite } : {}), 0] as const;
    const caption = name === '' ? [] : [['figcaption', { contenteditable: 'false' }, name] as const];
    return ['figure', { class: 'quoted' }, quote, ...caption];
  },
  addInputRules() {
    return [wrappingInputRule({ find: /^\s*>\s$/, type: this.type })];
  },
});

function readAttributes(element: HTMLElement): { readonly attribution: string; readonly cite: string } {
  const quote = element.matches('blockquote') ? element : element.querySelector('blockquote');
  const cite = v.safeParse(CiteSchema, quote?.getAttribute('cite') ?? '');
  const attribution = v.safeParse(
    AttributionSchema,
    element.querySelector(':scope > figcaption')?.textContent ?? '',
  );
  return {
    attribution: attribution.success ? attribution.output : '',
    cite: cite.success ? cite.output : '',
  };
}

export const quotation: SheetKind = {
  types: ['quotation'],
  nodes: () => [QuotationNode],
  kept: ({ attribution, cite }) => ({ attribution, cite }),
  says: { attribution: 'whose words a quotation is' },
  call: (words) => `the quotation ${words}`,
  title: 'A quotation',
  ways: [
    {
      words: 'quotation',
      sort: 'around',
      isOn: (editor) => editor.isActive('quotation'),
      apply: (editor) => {
        if (editor.isActive('quotation')) onSheet(editor).lift('quotation').run();
        else if (editor.can().wrapIn('quotation')) onSheet(editor).wrapIn('quotation').run();
        // A heading is no part of what somebody said: it becomes text first.
        else onSheet(editor).clearNodes().wrapIn('quotation').run();
      },
    },
  ],
  Row: QuotationRow,
};
