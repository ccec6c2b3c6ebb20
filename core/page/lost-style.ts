import type { HtmlElement } from './html-tree.ts';
import type { Look, SeenWords } from './look.ts';

/** One thing by which words were set apart, and that the site's style sheet decides on a page. */
export type LostStyle =
  | { readonly kind: 'font' | 'colour' | 'background'; readonly value: string }
  | { readonly kind: 'larger' | 'smaller' | 'underlined' | 'centred' | 'right' };

/** Words that were set apart, and by what. */
export interface LostWords {
  readonly words: string;
  readonly styles: readonly LostStyle[];
}

/** So much larger or smaller is seen. */
const SEEN_SHARE = 0.08;
const MOST_WORDS = 80;

/**
 * What looked otherwise than most of a text, words that follow each other in one block together. Fonts, sizes and colours of
 * headings and links say nothing: every site has its own for them.
 */
export function lostStyles(
  seen: readonly SeenWords[],
  common: Look,
  headings: ReadonlyMap<HtmlElement, unknown>,
): readonly LostWords[] {
  const lost: { words: string; key: string; block: HtmlElement | null; styles: readonly LostStyle[] }[] = [];
  let last = null as (typeof lost)[number] | null;
  for (const one of seen) {
    const isHeading = one.within === 'heading' || (one.block !== null && headings.has(one.block));
    const styles = stylesOf(one, common, isHeading);
    const key = styles.map((style) => Object.values(style).join(' ')).join(';');
    if (styles.length === 0) last = null;
    else if (last && last.key === key && last.block === one.block) {
      if (last.words.length < MOST_WORDS) last.words += one.text;
    } else {
      last = { words: one.text, key, block: one.block, styles };
      lost.push(last);
    }
  }
  return lost.map(({ words, styles }) => ({ words: shortened(words), styles }));
}

function stylesOf(
  { look, within, block }: SeenWords,
  common: Look,
  isHeading: boolean,
): readonly LostStyle[] {
  const isOwn = within !== null || isHeading;
  // Figures of a table are set to the right by whatever draws one.
  const isCell = block?.name === 'td' || block?.name === 'th';
  const usual = common.size || 16;
  const size = look.size || usual;
  const styles: (LostStyle | false)[] = [
    !isOwn && look.font !== '' && look.font !== common.font && { kind: 'font', value: look.font },
    !isOwn && size > usual * (1 + SEEN_SHARE) && { kind: 'larger' },
    !isOwn && size < usual * (1 - SEEN_SHARE) && { kind: 'smaller' },
    !isOwn && look.colour !== '' && look.colour !== common.colour && { kind: 'colour', value: look.colour },
    look.background !== '' &&
      look.background !== common.background && { kind: 'background', value: look.background },
    within !== 'link' && look.underlined && { kind: 'underlined' },
    look.align === 'centre' && common.align !== 'centre' && { kind: 'centred' },
    look.align === 'right' && !isCell && common.align !== 'right' && { kind: 'right' },
  ];
  return styles.filter((style) => style !== false);
}

function shortened(words: string): string {
  const text = words.replace(/\s+/g, ' ').trim();
  return text.length > MOST_WORDS ? `${text.slice(0, MOST_WORDS - 1).trimEnd()}…` : text;
}
