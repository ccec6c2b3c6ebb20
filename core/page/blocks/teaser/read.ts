import * as v from 'valibot';
import { type HtmlElement, textOf } from '../../html-tree.ts';
import type { ReadElement } from '../../reading.ts';
import { placedIn } from '../placed-in.ts';
import { TeaserTitleSchema, TeaserWordsSchema } from './schema.ts';

const lineIn = (node: HtmlElement, name: string): string => {
  const found = node.children.find((child) => typeof child !== 'string' && child.name === name);
  return found ? textOf(found).replace(/\s+/g, ' ').trim() : '';
};

/** What is said to be a teaser: its piece, its title in a heading, and its words in a paragraph. */
export const readTeaser: ReadElement = (node, flow, reader) => {
  const figures = node.children.filter((child) => typeof child !== 'string' && child.name === 'figure');
  const { content, after } = placedIn(figures, reader);
  const title = v.safeParse(TeaserTitleSchema, lineIn(node, 'h2'));
  const words = v.safeParse(TeaserWordsSchema, lineIn(node, 'p'));
  flow.putBlock({
    type: 'teaser',
    attrs: {
      id: reader.newId(),
      title: title.success ? title.output : '',
      words: words.success ? words.output : '',
    },
    content,
  });
  for (const part of after) flow.put(part);
};
