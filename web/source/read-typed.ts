import { parseFragment } from 'parse5';
import type { PageDoc } from '#core/page/model.ts';
import { treeOfParsed } from '#core/page/parsed-tree.ts';
import { readSource } from '#core/page/source/read.ts';
import { writeSource } from '#core/page/source/write.ts';
import type { WriteContext } from '#core/page/write-context.ts';
import { type Lost, lostIn } from './lost.ts';
import { type Token, tokensOf } from './tokens.ts';

/** What source was written from. */
export interface SourceBase extends Pick<WriteContext, 'rules' | 'pieces'> {
  readonly page: PageDoc;
}

export type TypedReading =
  | {
      readonly kind: 'read';
      readonly page: PageDoc;
      readonly lost: readonly Lost[];
      /** All that is left out, with the ends of elements, to be struck out where it stands. */
      readonly struck: readonly Pick<Token, 'from' | 'to'>[];
    }
  /** It cannot be read; what was typed stays as it is. */
  | { readonly kind: 'refused'; readonly why: string };

/** A page of 5,000 blocks has some 2 MB. */
const MOST_LETTERS = 4_000_000;
/** Pages are nested some ten deep; what is nested deeper than this takes parsers a time that grows with its square. */
const MOST_DEPTH = 500;

/** Reads what was typed in source, and says what of it would not be kept. Never runs, never loads anything. */
export function readTyped(
  text: string,
  { page, rules, pieces }: SourceBase,
  newId: () => string,
): TypedReading {
  if (text.length > MOST_LETTERS)
    return {
      kind: 'refused',
      why: 'This is more than a page holds. Nothing was changed: take some of it out.',
    };
  if (isDeep(text))
    return {
      kind: 'refused',
      why: `Elements stand in each other more than ${MOST_DEPTH} deep, which no page has. Nothing was changed: close them, or take them out.`,
    };
  const parsed = parse(text);
  const context = { rules, pieces };
  const read = readSource(treeOfParsed(parsed), page, context, newId);
  const written = writeSource(read.page, context).text;
  const before = writeSource(page, context).text;
  const own = new Set(tokensOf(parse(before), before).map(({ key }) => key));
  const compared = lostIn(tokensOf(parsed, text), tokensOf(parse(written), written), own);
  if (!compared)
    return {
      kind: 'refused',
      why: 'So much of this cannot be kept that it cannot be shown line by line. Nothing was changed: paste it on the sheet, which takes what it can.',
    };
  return { kind: 'read', page: read.page, ...compared };
}

const parse = (text: string) => parseFragment(text, { sourceCodeLocationInfo: true }).childNodes;

/** Whether more elements are begun in each other than pages have. Linear. */
function isDeep(text: string): boolean {
  let depth = 0;
  for (const found of text.matchAll(/<(\/?)[a-z][^\s/>]{0,40}/gi)) {
    depth = Math.max(0, depth + (found[1] === '/' ? -1 : isVoid(found[0]) ? 0 : 1));
    if (depth > MOST_DEPTH) return true;
  }
  return false;
}

const isVoid = (tag: string): boolean =>
  /^<(?:area|base|br|col|embed|hr|img|input|link|meta|source|track|wbr|p|li|td|th|tr|dt|dd|option)$/i.test(
    tag,
  );
