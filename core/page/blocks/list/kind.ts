import { type Inline, isBlank } from '../../inline.ts';
import type { BlockContext } from '../../write-context.ts';
import { writeInlines } from '../../write-inline.ts';
import type { Block } from '../block.ts';
import type { BlockKind } from '../kind.ts';
import { readList } from './read.ts';
import { type InnerList, type List, type ListItem, linesOf } from './schema.ts';

type Of<T extends List['type']> = Extract<Block, { readonly type: T }>;

/** A list (HTML, `ul` and `ol`). Its entries hold words and lists, and are part of it. */
const list = {
  write: (block: List, context: BlockContext) => writeList(block, context),
  words: (block: List) => linesOf(block).map(({ content }) => content),
};

export const bulletList: BlockKind<Of<'bulletList'>> = {
  ...list,
  reads: { ul: readList, menu: readList, dir: readList },
};

export const orderedList: BlockKind<Of<'orderedList'>> = { ...list, reads: { ol: readList } };

/** An entry that says nothing is a bullet before nothing. */
const saysNothing = ({ content }: ListItem): boolean =>
  content.every((part) =>
    part.type === 'paragraph' ? isBlank(part.content) : part.content.every(saysNothing),
  );

function writeList(list: List | InnerList, context: BlockContext): string {
  const said = list.content.filter((item) => !saysNothing(item));
  if (said.length === 0) return '';
  const items = said.map((item) => `<li>${writeItem(item, context)}</li>`).join('\n');
  if (list.type === 'bulletList') return `<ul>\n${items}\n</ul>`;
  const { start = 1 } = list.attrs ?? {};
  return `<ol${start === 1 ? '' : ` start="${start}"`}>\n${items}\n</ol>`;
}

const writeLine = ({ content }: { readonly content?: Inline[] }, context: BlockContext): string =>
  isBlank(content) ? '' : writeInlines(content, context);

function writeItem({ content }: ListItem, context: BlockContext): string {
  const said = content.filter(
    (part, at) =>
      at === 0 || (part.type === 'paragraph' ? !isBlank(part.content) : !part.content.every(saysNothing)),
  );
  const [only] = said;
  if (said.length === 1 && only?.type === 'paragraph') return writeInlines(only.content, context);
  return said
    .map((part) =>
      part.type === 'paragraph' ? `<p>${writeLine(part, context)}</p>` : writeList(part, context),
    )
    .join('\n');
}
