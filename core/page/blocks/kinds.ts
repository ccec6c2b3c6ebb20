import { banner, bannerWords } from './banner/kind.ts';
import { beforeAfter } from './before-after/kind.ts';
import type { Block } from './block.ts';
import { card, cards } from './cards/kind.ts';
import { codeBlock } from './code-block/kind.ts';
import { column, columns } from './columns/kind.ts';
import { contents } from './contents/kind.ts';
import { details } from './details/kind.ts';
import { gallery } from './gallery/kind.ts';
import { heading } from './heading/kind.ts';
import { keptPart } from './kept-part/kind.ts';
import type { BlockKind } from './kind.ts';
import { bulletList, orderedList } from './list/kind.ts';
import { paragraph } from './paragraph/kind.ts';
import { placement } from './placement/kind.ts';
import { quotation } from './quotation/kind.ts';
import { rule } from './rule/kind.ts';
import { sideBox } from './side-box/kind.ts';
import { table } from './table/kind.ts';
import { teaser } from './teaser/kind.ts';

/** Every kind of block with all that is particular to it: the one list. A kind that is missing here does not compile. */
const KINDS = {
  paragraph,
  heading,
  bulletList,
  orderedList,
  placement,
  quotation,
  codeBlock,
  rule,
  table,
  details,
  sideBox,
  cards,
  card,
  columns,
  column,
  gallery,
  beforeAfter,
  banner,
  bannerWords,
  teaser,
  contents,
  keptPart,
} satisfies {
  readonly [T in Block['type']]: BlockKind<Extract<Block, { readonly type: T }>>;
};

export const ALL_KINDS: readonly BlockKind<Block>[] = Object.values(KINDS);

export function kindOf({ type }: Pick<Block, 'type'>): BlockKind<Block> {
  return KINDS[type];
}
