import { EMBED_STYLE } from '../../../embed/on-page.ts';
import { LINE_HEIGHT, OVER_MARGIN, PLATE_RISE, PLATE_SIDE } from '../../../media/over-words.ts';
import { LABEL_FACES } from '../../faces.ts';
import { isBeside } from '../../layout.ts';
import { LARGER_STYLE } from '../../on-page.ts';
import { recipeHere } from '../../picture.ts';
import { pictureStyleCss } from '../../picture-style.ts';
import type { Piece } from '../../piece.ts';
import { LEAST_SHOWN_PX } from '../../room.ts';
import type { HouseRules } from '../../target.ts';
import type { Placement } from './schema.ts';

/**
 * The style of a page's placements: their measures just as `layout.ts` computes them, against the width of what they stand in
 * and of `.placard` (CSS Containment 3, container queries). What lays words over pictures is left out of a page that has
 * none; `any` keeps it.
 */
export function placementStyle(
  rules: HouseRules,
  placements: readonly Placement[],
  pieces: ReadonlyMap<string, Piece> | 'any',
  isLarger: boolean,
): string {
  const gutters = 2 * rules.gutter;
  const breakout = Math.max(rules.breakout, rules.column);
  const isWorded = pieces === 'any' || placements.some((one) => hasText(rules, one, pieces));
  const has = (kind: Piece['kind']) =>
    pieces === 'any' || placements.some(({ asset }) => pieces.get(asset)?.kind === kind);
  return [
    `${FIGURES}${isWorded ? OVER : ''}${has('embed') ? EMBED_STYLE : ''}${has('document') ? DOCUMENT : ''}${isLarger ? LARGER_STYLE : ''}`,
    `.placed.breakout { --room: min(${breakout}px, 100cqw - ${gutters}px); }`,
    '.placed.bleed { --room: 100cqw; }',
    stacking(rules.stackBelow, ''),
    ...ownStacking(placements).map((below) => stacking(below, `.stack-${below}`)),
    ...pictureStyles(rules, placements, pieces === 'any'),
  ].join('\n');
}

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
function ownStacking(placements: readonly Placement[]): readonly number[] {
  const widths = placements.flatMap((p) => (isBeside(p) && p.stackBelow !== null ? [p.stackBelow] : []));
  return [...new Set(widths)].sort((a, b) => a - b);
}

/** The picture styles that are used; all where anything may come. */
function pictureStyles(
  { pictureStyles: styles }: HouseRules,
  placements: readonly Placement[],
  isAny: boolean,
): readonly string[] {
  const used = new Set(placements.map(({ pictureStyle }) => pictureStyle));
  return styles.flatMap((style) => {
    const css = pictureStyleCss(style);
    if (css === '' || !(isAny || used.has(style.className))) return [];
    return `.placed.${style.className} img { ${css.replaceAll(';', '; ')}; }`;
  });
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

/** What a document is called, under its first page. */
const DOCUMENT = `
.placed .file { display: block; padding-top: 6px; font: 600 15px/1.35 ${LABEL_FACES}; }
.placed .file-page { display: block; border: 1px solid #c9d2d6; }`;

const FIGURES = `.placed { display: block; box-sizing: border-box; margin: var(--t) var(--r) var(--b) var(--l); clear: both; }
.placed img { display: block; width: 100%; height: auto; }
.placed > a { display: block; }
.placed figcaption { font: 14px/1.4 ${LABEL_FACES}; color: #55636a; padding-top: 6px; }
.placed figcaption a { color: inherit; }
.described { margin-top: 4px; }
.described summary { cursor: pointer; text-decoration: underline; text-underline-offset: 0.15em; }
.described :is(p, ul, ol, h2, h3, h4, h5, h6) { margin: 6px 0 0; font-size: 1em; }
.described .figures { margin-top: 8px; overflow-x: auto; }
.described table { border-collapse: collapse; font-variant-numeric: tabular-nums; }
.described :is(th, td) { padding: 3px 14px 3px 0; border-bottom: 1px solid #8a989d; text-align: left; vertical-align: top; }
.placed.beside-left, .placed.beside-right { clear: none; width: max(${LEAST_SHOWN_PX}px, min(var(--w), 100% - var(--l) - var(--r))); }
.placed.beside-left { float: left; clear: left; }
.placed.beside-right { float: right; clear: right; }
.placed.centred { width: max(${LEAST_SHOWN_PX}px, min(var(--w), 100% - var(--l) - var(--r))); margin-left: auto; margin-right: auto; }
.placed.breakout, .placed.bleed { width: calc(var(--room) - var(--l) - var(--r)); margin-left: calc(50% - var(--room) / 2 + var(--l)); margin-right: 0; }
.placed.bleed figcaption { padding-left: 20px; padding-right: 20px; }`;
