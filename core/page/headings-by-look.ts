import type { HeadingLevel } from './blocks/heading/schema.ts';
import type { HtmlElement } from './html-tree.ts';
import type { Look, SeenWords } from './look.ts';

/** Letters of a line that may be a heading; longer ones are text that is set large. */
const MOST_LETTERS = 120;
/** A bold line is a heading from so much larger than the text; one that is not bold, from so much. */
const LARGER = 1.1;
const MUCH_LARGER = 1.4;

/**
 * The blocks that are headings by how they stand: a bold line alone, larger than the text, over text. Their sizes give
 * their levels: the largest is the second, under the page's title.
 */
export function headingsByLook(
  seen: readonly SeenWords[],
  common: Look,
): ReadonlyMap<HtmlElement, HeadingLevel> {
  const lines = new Map<HtmlElement, { readonly size: number; readonly at: number }>();
  let at = 0;
  while (at < seen.length) {
    const from = at;
    const block = seen[at]?.block ?? null;
    while (at < seen.length && (seen[at]?.block ?? null) === block) at += 1;
    const words = seen.slice(from, at);
    // A block whose words were parted by another block is no line.
    if (block && lines.has(block)) lines.delete(block);
    else if (block && isLine(block, words, common))
      lines.set(block, { size: Math.max(...words.map(({ look }) => look.size)), at });
  }
  const found = [...lines].filter(([, line]) => line.at < seen.length);
  const sizes = [...new Set(found.map(([, { size }]) => size))].sort((one, other) => other - one);
  return new Map(
    found.map(([block, { size }]) => [block, Math.min(4, 2 + sizes.indexOf(size)) as HeadingLevel]),
  );
}

function isLine({ name }: HtmlElement, words: readonly SeenWords[], common: Look): boolean {
  if (!/^(?:p|div)$/.test(name)) return false;
  const text = words
    .map((one) => one.text)
    .join('')
    .trim();
  if (text.length > MOST_LETTERS || /[.,;:]$/.test(text) || words.length > MOST_LETTERS) return false;
  const usual = common.size || 16;
  return words.every(
    ({ look, within }) =>
      within !== 'heading' &&
      ((look.bold && !common.bold && look.size >= usual * LARGER) || look.size >= usual * MUCH_LARGER),
  );
}
