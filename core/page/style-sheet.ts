import { ALL_KINDS, kindOf } from './blocks/kinds.ts';
import { placementStyle } from './blocks/placement/style.ts';
import { FOOT_STYLE } from './credits.ts';
import { TEXT_FACES } from './faces.ts';
import { SMALL_TEXT_BELOW_PX, SMALL_TEXT_SHARE } from './layout.ts';
import type { PageDoc } from './model.ts';
import { opensLarger } from './on-page.ts';
import type { Piece } from './piece.ts';
import { LEAST_SHOWN_PX } from './room.ts';
import type { HouseRules } from './target.ts';
import { placementsOf, walkPage } from './walk.ts';

/**
 * The style sheet of a page: of its text, of the kinds of blocks that it holds, and of its placements. The sheet, the proof's
 * frames and the readers' browsers all follow the same rules. `any` pieces stand for whatever may come.
 */
export function styleSheet(
  rules: HouseRules,
  page: PageDoc,
  pieces: ReadonlyMap<string, Piece> | 'any',
): string {
  const isLarger = opensLarger(page, pieces === 'any' ? new Map() : pieces);
  return `${TEXT(rules.textSize)}
.placard-column { width: max(${LEAST_SHOWN_PX}px, min(${rules.column}px, 100cqw - ${2 * rules.gutter}px)); }
${stylesOfKinds(rules, page, pieces === 'any')}${placementStyle(rules, placementsOf(page), pieces, isLarger)}
${rules.creditsAt === 'foot' ? `${FOOT_STYLE}\n` : ''}${rules.dark ? `${DARK}\n` : ''}${PRINT}`
    .trimEnd()
    .concat('\n');
}

/** The styles of the kinds of blocks on a page, each once; of all kinds where anything may come. */
function stylesOfKinds(rules: HouseRules, page: PageDoc, isAny: boolean): string {
  const kinds = isAny ? ALL_KINDS : [...walkPage(page)].map(kindOf);
  const styles = new Set(kinds.flatMap(({ style }) => style?.(rules) ?? []));
  return [...styles].map((style) => `${style}\n`).join('');
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
  .placard p a[href^="http"]::after, .placard li a[href^="http"]:not(.placed *)::after { content: " (" attr(href) ")"; font-size: 0.8em; overflow-wrap: anywhere; }
  .placard abbr[title]::after { content: " (" attr(title) ")"; }
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
.placard :is(sup, sub) { position: relative; font-size: 0.72em; line-height: 0; vertical-align: baseline; }
.placard sup { top: -0.5em; }
.placard sub { bottom: -0.25em; }
.placard small { font-size: 0.84em; }
.placard :not(pre) > code { font-family: ui-monospace, monospace; font-size: 0.9em; }
.placard abbr[title] { text-decoration: underline dotted; text-underline-offset: 0.15em; }`;
