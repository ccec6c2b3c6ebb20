import { escapeHtml } from '../../escape.ts';
import { isBlank } from '../../inline.ts';
import { writeInlines } from '../../write-inline.ts';
import type { BlockKind } from '../kind.ts';
import { readHeading } from './read.ts';
import type { Heading } from './schema.ts';

/** A heading in the text (HTML, `h2` to `h4`): the page's title is the first level. */
export const heading: BlockKind<Heading> = {
  write: ({ attrs: { id, level, anchor: own }, content }, context) => {
    if (isBlank(content)) return '';
    // In source stands what was chosen; what its words make of it is written when the page goes out.
    const anchor = context.isSource ? own : context.anchors.get(id);
    const named = anchor === undefined ? '' : ` id="${escapeHtml(anchor)}"`;
    return `<h${level}${named}>${writeInlines(content, context)}</h${level}>`;
  },
  words: ({ content }) => [content],
  findings: ({ attrs: { id }, content }) =>
    isBlank(content)
      ? [
          {
            code: 'heading-empty',
            values: {},
            place: { kind: 'block', blockId: id },
            remedies: [{ kind: 'remove-block', blockId: id }],
          },
        ]
      : [],
  reads: {
    h1: readHeading,
    h2: readHeading,
    h3: readHeading,
    h4: readHeading,
    h5: readHeading,
    h6: readHeading,
  },
};
