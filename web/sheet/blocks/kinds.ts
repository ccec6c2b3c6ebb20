import { banner, bannerWords } from './banner/kind.tsx';
import { beforeAfter } from './before-after/kind.tsx';
import { card, cards } from './cards/kind.tsx';
import { codeBlock } from './code-block/kind.ts';
import { column, columns } from './columns/kind.tsx';
import { contents } from './contents/kind.ts';
import { details } from './details/kind.tsx';
import { gallery } from './gallery/kind.tsx';
import { heading } from './heading/kind.ts';
import { keptPart } from './kept-part/kind.tsx';
import type { SheetKind, TextWay } from './kind.ts';
import { list } from './list/kind.ts';
import { paragraph } from './paragraph/kind.ts';
import { placement } from './placement/kind.ts';
import { quotation } from './quotation/kind.tsx';
import { rule } from './rule/kind.ts';
import { sideBox } from './side-box/kind.tsx';
import { table } from './table/kind.ts';
import { teaser } from './teaser/kind.tsx';

/** Every kind of block on the sheet, in the order in which the text's label offers them: the one list. */
export const SHEET_KINDS: readonly SheetKind[] = [
  paragraph,
  heading,
  list,
  quotation,
  sideBox,
  cards,
  card,
  columns,
  column,
  gallery,
  beforeAfter,
  banner,
  bannerWords,
  details,
  keptPart,
  codeBlock,
  rule,
  contents,
  table,
  placement,
  teaser,
];

export function sheetKindOf(type: string): SheetKind | undefined {
  return SHEET_KINDS.find(({ types }) => types.includes(type));
}

const PARTS = new Map(SHEET_KINDS.flatMap(({ parts }) => Object.entries(parts ?? {})));

/** What a page keeps of the attributes of what has no ID: parts of a block, and blocks in an entry of a list. */
export function keptOfPart(type: string, attrs: Readonly<Record<string, unknown>>) {
  return (PARTS.get(type) ?? sheetKindOf(type)?.kept)?.(attrs) ?? {};
}

export const TEXT_WAYS: readonly TextWay[] = SHEET_KINDS.flatMap(({ ways }) => ways);
