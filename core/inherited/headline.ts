import { parse } from 'parse5';
import { elementsIn, textOf } from '../page/html-tree.ts';
import { treeOfParsed } from '../page/parsed-tree.ts';

/** What a page is called by itself: its first heading, else what its tab says; empty for neither. Linear in its length. */
export function headlineOf(html: string): string {
  let title = '';
  for (const root of treeOfParsed(parse(html).childNodes))
    for (const node of elementsIn(root)) {
      const words = /^(?:h1|title)$/.test(node.name) ? textOf(node).replace(/\s+/g, ' ').trim() : '';
      if (words !== '' && node.name === 'h1') return words;
      if (title === '') title = words;
    }
  return title;
}
