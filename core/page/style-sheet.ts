import { EMBED_STYLE } from '../embed/on-page.ts';
import { LINE_HEIGHT, OVER_MARGIN, PLATE_RISE, PLATE_SIDE } from '../media/over-words.ts';
import { LABEL_FACES, TEXT_FACES } from './faces.ts';
import { isBeside, LEAST_SHOWN_PX, SMALL_TEXT_BELOW_PX, SMALL_TEXT_SHARE } from './layout.ts';
import { type PageDoc, type Placement, placementsOf } from './model.ts';
import { type Piece, recipeHere } from './picture.ts';
import type { HouseRules } from './target.ts';

/**
 * The style sheet of a page. It lays placements out just as `layout.ts` computes them: against the width of
 * `.placard` (CSS Containment 3, container queries), so that the sheet, the proof's frames and the readers'
 * browsers all follow the same rules. What lays words over pictures is left out of a page that has none; `any` keeps it.
 */
export function styleSheet(
  rules: HouseRules,
  page: PageDoc,
  pieces: ReadonlyMap<string, Piece> | 'any',
): string {
  const gutters = 2 * rules.gutter;
  const breakout = Math.max(rules.breakout, rules.column);
  const isWorded = pieces === 'any' || placementsOf(page).some((one) => hasText(rules, one, pieces));
  const hasEmbeds = pieces === 'any' || placementsOf(page).some(({ asset }) => pieces.get(asset)?.embed);
  return `${TEXT(rules.textSize)}${isWorded ? OVER : ''}${hasEmbeds ? EMBED_STYLE : ''}
.placard-column { width: max(${LEAST_SHOWN_PX}px, min(${rules.column}px, 100cqw - ${gutters}px)); }
.placed.breakout { --room: min(${breakout}px, 100cqw - ${gutters}px); }
.placed.bleed { --room: 100cqw; }
${stacking(rules.stackBelow, '')}
${ownStacking(page)
  .map((below) => stacking(below, `.stack-${below}`))
  .join('\n')}
${rules.dark ? `${DARK}\n` : ''}${PRINT}`
    .trimEnd()
    .concat('\n');
}

/** What a document of its own needs besides: its ground, and nothing between the page and the edge of the window. */
export function documentStyle({ dark }: Pick<HouseRules, 'dark'>): string {
  const ground = 'body { margin: 0; background: #ffffff; }\n';
  return dark
    ? `:root { color-scheme: light dark; }\n${ground}@media screen and (prefers-color-scheme: dark) { body { background: #12191c; } }\n`
    : ground;
}

/**
 * Text for a dark ground, which is the target's own where the page stands in another. Contrast (WCAG 2.2, 1.4.3) on
 * #12191c: text 15:1, links 10:1, captions 8:1.
 */
const DARK = `@media screen and (prefers-color-scheme: dark) {
  .placard { color: #e8eef0; }
  .placard a { color: #7fd0ba; }
  .placed figcaption { color: #a9b5ba; }
}`;

/** Whether words stand over a picture as text of the page. */
function hasText(
  { wordsOver }: HouseRules,
  placement: Placement,
  pieces: ReadonlyMap<string, Piece>,
): boolean {
  const piece = pieces.get(placement.asset);
  return wordsOver === 'text' && piece !== undefined && recipeHere(placement, piece).words !== null;
}

/** Stacking widths that placements of the page set for themselves. */
function ownStacking(page: PageDoc): readonly number[] {
  const widths = placementsOf(page).flatMap((p) =>
    isBeside(p) && p.stackBelow !== null ? [p.stackBelow] : [],
  );
  return [...new Set(widths)].sort((a, b) => a - b);
}

function stacking(below: number, own: string): string {
  const which = own || ':not([class*="stack-"])';
  return `@container placard (width < ${below}px) {
  .placed.beside-left${which}, .placed.beside-right${which} { float: none; width: 100%; margin-left: 0; margin-right: 0; }
}`;
}

/** A picture that is shown narrower than this has no room for words: they stand under it. */
const LEAST_WORDED_PX = 320;
const MARGIN = `${OVER_MARGIN * 100}cqi`;

const OVER = `
.placed .worded { position: relative; container-type: inline-size; }
.placed .over { position: absolute; left: ${MARGIN}; right: ${MARGIN}; margin: 0; font: 600 max(14px, calc(var(--s) * 1cqi)) / ${LINE_HEIGHT} ${LABEL_FACES}; color: var(--ink); text-align: center; overflow-wrap: normal; }
.placed .over.top, .placed .over.top-left, .placed .over.top-right { top: ${MARGIN}; }
.placed .over.bottom, .placed .over.bottom-left, .placed .over.bottom-right { bottom: ${MARGIN}; }
.placed .over.left, .placed .over.middle, .placed .over.right { top: 50%; translate: 0 -50%; }
.placed .over.top-left, .placed .over.left, .placed .over.bottom-left { text-align: left; }
.placed .over.top-right, .placed .over.right, .placed .over.bottom-right { text-align: right; }
.placed .over.plated { padding: ${PLATE_RISE}em 0; }
.placed .over.plated > span { padding: ${PLATE_RISE}em ${PLATE_SIDE}em; background: var(--plate); -webkit-box-decoration-break: clone; box-decoration-break: clone; }
@container (width < ${LEAST_WORDED_PX}px) {
  .placed .over { position: static; padding: 8px 0 0; font-size: 15px; color: inherit; text-align: inherit; translate: none; }
  .placed .over.plated > span { padding: 0; background: none; }
}`;

/**
 * On paper (CSS Fragmentation 3, CSS Paged Media 3): no figure is cut in two, no heading stands alone at the foot of a
 * page, links say where they lead, and what is folded away is there.
 */
const PRINT = `@media print {
  .placard { font-size: 11pt; color: #000000; }
  .placed, .placard li { break-inside: avoid; }
  .placard h1, .placard h2, .placard h3, .placard h4 { break-after: avoid; break-inside: avoid; }
  .placard p { orphans: 3; widows: 3; }
  .placard a { color: inherit; }
  .placard p a[href^="http"]::after, .placard li a[href^="http"]::after { content: " (" attr(href) ")"; font-size: 0.8em; overflow-wrap: anywhere; }
  .described::details-content { content-visibility: visible; display: block; }
}`;

const TEXT = (
  size: number,
) => `.placard { container: placard / inline-size; font: ${size}px/1.5 ${TEXT_FACES}; color: #172126; overflow-wrap: break-word; padding-bottom: 2.5em; }
.placard-column { display: flow-root; margin: 0 auto; }
@container placard (width < ${SMALL_TEXT_BELOW_PX}px) { .placard-column { font-size: ${SMALL_TEXT_SHARE}em; } }
.placard h1, .placard h2, .placard h3, .placard h4 { clear: both; line-height: 1.2; margin: 1.2em 0 0.4em; text-wrap: balance; }
.placard h1 { font-size: 1.9em; margin-top: 0.7em; }
.placard h2 { font-size: 1.45em; }
.placard h3 { font-size: 1.15em; }
.placard h4 { font-size: 1em; }
.placard p, .placard ul, .placard ol { margin: 0 0 0.75em; }
.placard ul, .placard ol { padding-left: 1.4em; }
.placard li { margin: 0 0 0.25em; }
.placard li > p:only-child { margin: 0; }
.placard a { color: #0f5c4d; text-underline-offset: 0.15em; }
.placed { display: block; box-sizing: border-box; margin: var(--t) var(--r) var(--b) var(--l); clear: both; }
.placed img { display: block; width: 100%; height: auto; }
.placed > a { display: block; }
.placed figcaption { font: 14px/1.4 ${LABEL_FACES}; color: #55636a; padding-top: 6px; }
.placed figcaption a { color: inherit; }
.described { margin-top: 4px; }
.described summary { cursor: pointer; text-decoration: underline; text-underline-offset: 0.15em; }
.described p { margin: 6px 0 0; }
.placed.beside-left, .placed.beside-right { clear: none; width: max(${LEAST_SHOWN_PX}px, min(var(--w), 100% - var(--l) - var(--r))); }
.placed.beside-left { float: left; clear: left; }
.placed.beside-right { float: right; clear: right; }
.placed.centred { width: max(${LEAST_SHOWN_PX}px, min(var(--w), 100% - var(--l) - var(--r))); margin-left: auto; margin-right: auto; }
.placed.breakout, .placed.bleed { width: calc(var(--room) - var(--l) - var(--r)); margin-left: calc(50% - var(--room) / 2 + var(--l)); margin-right: 0; }
.placed.bleed figcaption { padding-left: 20px; padding-right: 20px; }`;
