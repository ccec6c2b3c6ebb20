import { Node as EditorNode, Extension, mergeAttributes } from '@tiptap/core';
import { Plugin } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import { OF_SHEET } from '../flow.ts';
import type { SheetKind } from '../kind.ts';
import { ROW_GROUP } from '../placement/node.ts';
import { TeaserRow } from './row.tsx';

const said = (tag: string, name: string, words: string) =>
  [tag, { class: name, contenteditable: 'false' }, words] as const;

/** It lies on the page apart from the article. */
const LOOK =
  'sheet-teaser mb-5 grid grid-cols-[160px_minmax(0,1fr)] grid-rows-[auto_auto_1fr] gap-x-4 gap-y-0.5 border border-dashed border-paper-soft p-3 font-sans text-base leading-normal [&>p]:m-0!';

/** Without a title of its own it has that of the page. */
const PAGE_TITLE =
  'before:col-start-2 before:row-start-2 before:font-semibold before:content-[attr(data-page-title)]';

/** Set apart from the article: what is in it stands in listings alone. */
const TeaserNode = EditorNode.create({
  name: 'teaser',
  group: `block ${ROW_GROUP}`,
  content: 'placement{0,1}',
  selectable: false,
  addAttributes: () => ({
    title: { default: '', rendered: false },
    words: { default: '', rendered: false },
  }),
  // Only where it was copied from a sheet: a page that is pasted has none.
  parseHTML: () => [
    {
      tag: 'div[data-teaser-title]',
      getAttrs: ({ dataset }) => ({ title: dataset.teaserTitle ?? '', words: dataset.teaserWords ?? '' }),
    },
  ],
  renderHTML: ({ node, HTMLAttributes }) => {
    const [title, words] = [String(node.attrs.title), String(node.attrs.words)];
    return [
      'div',
      mergeAttributes(HTMLAttributes, OF_SHEET, {
        class: title === '' ? `${LOOK} ${PAGE_TITLE}` : LOOK,
        'data-teaser-title': title,
        'data-teaser-words': words,
      }),
      said('p', 'text-paper-soft', 'In a listing'),
      ['div', { class: 'col-start-1 row-span-3 row-start-1 [&>.placed]:m-0' }, 0],
      ...(title === '' ? [] : [said('p', 'font-semibold', title)]),
      said('p', '', words || 'Nothing is said of the page yet.'),
    ];
  },
});

/** A page has one: what is pasted with another leaves that behind. It is told the title of the page. */
const soleTeaser = Extension.create({
  name: 'soleTeaser',
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        decorations: ({ doc }) => {
          const marks: Decoration[] = [];
          doc.forEach((node, pos) => {
            if (node.type.name !== 'teaser') return;
            const title = { 'data-page-title': String(doc.attrs.title) || 'Untitled page' };
            marks.push(Decoration.node(pos, pos + node.nodeSize, title));
          });
          return DecorationSet.create(doc, marks);
        },
      },
      appendTransaction: (transactions, _before, { doc, tr }) => {
        if (!transactions.some(({ docChanged }) => docChanged)) return null;
        const places: number[] = [];
        doc.forEach((node, pos) => {
          if (node.type.name === 'teaser') places.push(pos);
        });
        for (const pos of places.slice(1).reverse()) tr.delete(pos, pos + (doc.nodeAt(pos)?.nodeSize ?? 0));
        return tr.docChanged ? tr : null;
      },
    }),
  ],
});

export const teaser: SheetKind = {
  types: ['teaser'],
  nodes: () => [TeaserNode, soleTeaser],
  kept: ({ title, words }) => ({ title, words }),
  says: { title: 'the title of the teaser', words: 'the words of the teaser' },
  call: () => 'the teaser',
  title: 'The teaser',
  ways: [],
  Row: TeaserRow,
};
