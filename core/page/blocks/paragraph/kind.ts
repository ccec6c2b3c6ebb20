import { isBlank } from '../../inline.ts';
import { writeInlines } from '../../write-inline.ts';
import type { BlockKind } from '../kind.ts';
import type { Paragraph } from './schema.ts';

/** Text (HTML, `p`). Empty ones are there to be written in, and do not go out. */
export const paragraph: BlockKind<Paragraph> = {
  write: ({ content }, context) => (isBlank(content) ? '' : `<p>${writeInlines(content, context)}</p>`),
  words: ({ content }) => [content],
};
