import { treeOf } from './block-tree.ts';
import type { Block } from './blocks/block.ts';
import { withBroughtBack } from './bring-back.ts';
import { comparePages, type Difference, saidBy, saidFacts } from './compare.ts';
import { mergePages } from './merge.ts';
import type { PageDoc } from './model.ts';
import type { HouseRules } from './target.ts';
import { walkPage, withBlocks } from './walk.ts';

/** The House rules by which a page goes out: those of its target, in the page's own language where it has one. */
export function rulesInLanguage<R extends Pick<HouseRules, 'language'>>(
  rules: R,
  { language }: Pick<PageDoc, 'language'>,
): R {
  return language === undefined ? rules : { ...rules, language };
}

/** The House rules as they hold on one page. */
export function rulesOnPage(rules: HouseRules, id: string, doc: Pick<PageDoc, 'language'>): HouseRules {
  return { ...rulesInLanguage(rules, doc), onPage: id };
}

/**
 * A page as a translation of it begins: its blocks under the same IDs, by which the two are compared ever after, its pieces,
 * and no address yet. What the page still wants is planned where it is planned.
 */
export function translationOf(original: PageDoc, language: string): PageDoc {
  const { address: _, ...rest } = original;
  return { ...rest, language, wants: [] };
}

/** How a translation stands to its original. */
export interface TranslationState {
  /** What the original says otherwise than when it was translated. */
  readonly reworded: readonly Difference[];
  /** What the translation would become if it were arranged as the original is now. */
  readonly arranged: PageDoc;
  /** What differs in arrangement between the translation and that. */
  readonly rearranged: readonly Difference[];
  /** Blocks that say the very words of the original still. */
  readonly untranslated: readonly Block[];
  readonly isTitleUntranslated: boolean;
}

/** How a translation stands to its original: `base` is the state of the original that it says. */
export function translationState(base: PageDoc, original: PageDoc, translation: PageDoc): TranslationState {
  const arranged = arrangedAs(base, original, translation);
  return {
    reworded: comparePages(base, original).filter((one) => saysOtherwise(one, translation)),
    arranged,
    rearranged: comparePages(translation, arranged),
    untranslated: untranslatedIn(original, translation),
    isTitleUntranslated: LETTERS.test(original.title) && original.title === translation.title,
  };
}

/** Whether a difference is one of words that were translated: what still says the words of the original takes them over. */
function saysOtherwise(one: Difference, translation: PageDoc): boolean {
  if (one.kind === 'fact') return one.id === 'title' && translation.title !== one.before;
  if (one.kind !== 'changed' || !one.words) return false;
  const here = treeOf(translation.blocks).nodes.get(one.id)?.block;
  return here !== undefined && saidBy(here) !== one.words.before;
}

/**
 * The translation with what was done to the original since put into it: blocks and pieces that came, went, were moved or set
 * otherwise. Words that were translated stay as they are, and where each has its own, as its address, so does that.
 */
function arrangedAs(base: PageDoc, original: PageDoc, translation: PageDoc): PageDoc {
  const { page } = mergePages(base, translation, original, () => 'mine');
  const [was, now] = [treeOf(base.blocks), treeOf(original.blocks)];
  const isGone = ({ attrs: { id } }: Block) => was.nodes.has(id) && !now.nodes.has(id);
  const {
    address: _a,
    headTitle: _h,
    summary: _s,
    keyPhrase: _k,
    ...rest
  } = withBlocks(page, (block) => (isGone(block) ? null : block));
  const { wants } = translation;
  return { ...rest, wants, ...saidFacts((fact) => (fact === 'lead' ? rest.lead : translation[fact])) };
}

const LETTERS = /\p{L}/u;

function untranslatedIn(original: PageDoc, translation: PageDoc): readonly Block[] {
  const { nodes } = treeOf(original.blocks);
  return [...walkPage(translation)].filter((block) => {
    const from = nodes.get(block.attrs.id)?.block;
    const words = from ? saidBy(from) : '';
    // What pieces say in another language is said on their labels; code is in none.
    const isOwn = block.type !== 'placement' && block.type !== 'codeBlock';
    return isOwn && LETTERS.test(words) && words === saidBy(block);
  });
}

/** The state of the original that a translation says, once a difference from it was translated; the very same where it is settled. */
export function translatedUpTo(base: PageDoc, original: PageDoc, id: string): PageDoc {
  const difference = comparePages(original, base).find((one) => one.id === id);
  return (difference && withBroughtBack(base, original, difference)) ?? base;
}

/** Whether nothing is left to be done for a translation. */
export function isUpToDate({ reworded, rearranged }: TranslationState): boolean {
  return reworded.length === 0 && rearranged.length === 0;
}
