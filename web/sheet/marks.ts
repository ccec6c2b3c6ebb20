import { Mark, mergeAttributes } from '@tiptap/core';
import type { Mark as PageMark } from '#core/page/inline.ts';

type Said = PageMark['type'];

/** A mark that is one element, and says nothing more. */
const plain = (name: Said, tags: string, excludes = name as string) =>
  Mark.create({
    name,
    excludes,
    parseHTML: () => tags.split(' ').map((tag) => ({ tag })),
    renderHTML: ({ HTMLAttributes }) => [tags.split(' ')[0] ?? 'span', HTMLAttributes, 0],
  });

/** A mark that says something in an attribute of its element. */
const saying = (name: Said, element: string, attribute: string) =>
  Mark.create({
    name,
    inclusive: false,
    addAttributes: () => ({ [attribute]: { default: '' } }),
    parseHTML: () => [{ tag: `${element}[${attribute}]` }],
    renderHTML: ({ HTMLAttributes }) => [element, mergeAttributes(HTMLAttributes), 0],
  });

const RAISED = 'superscript subscript';

/** What is said of words in a line besides bold, italic and links. */
export const WORD_MARKS = [
  plain('superscript', 'sup', RAISED),
  plain('subscript', 'sub', RAISED),
  plain('small', 'small'),
  plain('code', 'code kbd samp'),
  saying('abbreviation', 'abbr', 'title'),
  saying('language', 'span', 'lang'),
];
