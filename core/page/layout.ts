import type { Placement } from './model.ts';
import { DEFAULT_SHARE, type HouseRules, marginsOf } from './target.ts';
import { WIDTH_LIMITS } from './width-limits.ts';

/** A picture is never laid out narrower than this, whatever the margins. */
export const LEAST_SHOWN_PX = WIDTH_LIMITS.px.least;

/** Viewports from and up to these widths are considered for `sizes`. */
const NARROWEST_VIEWPORT_PX = 280;
const WIDEST_VIEWPORT_PX = 4000;

type Laid = Pick<Placement, 'position' | 'width' | 'margins' | 'stackBelow'>;
type Measures = Pick<HouseRules, 'column' | 'gutter' | 'breakout' | 'stackBelow'>;

/** The column's width in px at a viewport. */
export function columnAt(rules: Measures, viewport: number): number {
  return Math.max(LEAST_SHOWN_PX, Math.min(rules.column, viewport - 2 * rules.gutter));
}

export function isBeside(placement: Pick<Placement, 'position'>): boolean {
  return placement.position === 'beside-left' || placement.position === 'beside-right';
}

/** The viewport under which a placement beside the text stands in the column instead. */
export function stackingWidth(rules: Measures, placement: Laid): number {
  return placement.stackBelow ?? rules.stackBelow;
}

export function isStacked(rules: Measures, placement: Laid, viewport: number): boolean {
  return isBeside(placement) && viewport < stackingWidth(rules, placement);
}

/**
 * The width in px at which a placement is shown at a viewport (both CSS px). The one function behind the sheet,
 * the proof, `sizes` and the checks; `style-sheet.ts` says the same in CSS.
 */
export function shownWidth(rules: Measures, placement: Laid, viewport: number): number {
  const column = columnAt(rules, viewport);
  if (isStacked(rules, placement, viewport)) return column;
  const { left, right } = marginsOf(placement);
  const room = roomAt(rules, placement, viewport) - left - right;
  return Math.max(LEAST_SHOWN_PX, Math.min(wishedWidth(placement, column, room), room));
}

function roomAt(rules: Measures, placement: Laid, viewport: number): number {
  switch (placement.position) {
    case 'bleed':
      return viewport;
    case 'breakout':
      return Math.min(Math.max(rules.breakout, rules.column), viewport - 2 * rules.gutter);
    default:
      return columnAt(rules, viewport);
  }
}

/** Column, breakout and bleed fill their room; beside and centred have a width of their own. */
export function hasOwnWidth(placement: Pick<Placement, 'position'>): boolean {
  return isBeside(placement) || placement.position === 'centred';
}

function wishedWidth(placement: Laid, column: number, room: number): number {
  if (!hasOwnWidth(placement)) return room;
  if (!placement.width) return DEFAULT_SHARE[placement.position] * column;
  return placement.width.unit === 'px' ? placement.width.value : (placement.width.value / 100) * column;
}

/** The width in px left for text beside a placement, or null where text does not run beside it. */
export function textBeside(rules: Measures, placement: Laid, viewport: number): number | null {
  if (!isBeside(placement) || isStacked(rules, placement, viewport)) return null;
  const { left, right } = marginsOf(placement);
  return Math.max(0, columnAt(rules, viewport) - shownWidth(rules, placement, viewport) - left - right);
}

/** A stretch of viewports in which the shown width is `share` x viewport + `px`. */
export interface WidthSegment {
  /** First viewport in px that no longer belongs to it; null for the last. */
  readonly below: number | null;
  readonly share: number;
  readonly px: number;
}

/** `shownWidth` over all viewports as straight stretches, from narrow to wide: what `sizes` says. */
export function widthSegments(rules: Measures, placement: Laid): readonly WidthSegment[] {
  const knots = [...new Set(knotsOf(rules, placement))]
    .filter((k) => k > NARROWEST_VIEWPORT_PX && k < WIDEST_VIEWPORT_PX)
    .sort((a, b) => a - b);
  const edges = [NARROWEST_VIEWPORT_PX, ...knots, WIDEST_VIEWPORT_PX];
  const segments = edges
    .slice(1)
    .map((end, at) => segmentBetween(rules, placement, edges[at] ?? NARROWEST_VIEWPORT_PX, end));
  return joined(
    segments.map((segment, at) => (at === segments.length - 1 ? { ...segment, below: null } : segment)),
  );
}

/** Viewports at which the slope may change: room full, stacking, the wish meeting the room, the least width. */
function knotsOf(rules: Measures, placement: Laid): readonly number[] {
  const around = placement.position === 'bleed' ? 0 : 2 * rules.gutter;
  const { left, right } = marginsOf(placement);
  const sides = left + right;
  const rooms = [
    rules.column,
    Math.max(rules.breakout, rules.column),
    LEAST_SHOWN_PX,
    LEAST_SHOWN_PX + sides,
  ];
  const knots = rooms.map((room) => room + around);
  if (isBeside(placement)) knots.push(stackingWidth(rules, placement));
  if (!hasOwnWidth(placement)) return knots;
  const wish = placement.width ?? { unit: '%', value: DEFAULT_SHARE[placement.position] * 100 };
  if (wish.unit === 'px') return [...knots, wish.value + sides + around];
  const share = wish.value / 100;
  knots.push(LEAST_SHOWN_PX / share + around);
  if (share < 1) knots.push(sides / (1 - share) + around);
  return knots;
}

function segmentBetween(rules: Measures, placement: Laid, start: number, end: number): WidthSegment {
  // Two inner points of a straight stretch give its slope; its ends may belong to the neighbours.
  const one = start + (end - start) / 3;
  const two = start + ((end - start) * 2) / 3;
  const share = (shownWidth(rules, placement, two) - shownWidth(rules, placement, one)) / (two - one);
  return { below: end, share: rounded(share), px: rounded(shownWidth(rules, placement, one) - share * one) };
}

function rounded(value: number): number {
  return Math.round(value * 1000) / 1000 + 0;
}

function joined(segments: readonly WidthSegment[]): readonly WidthSegment[] {
  return segments.filter((segment, at) => {
    const next = segments[at + 1];
    return !next || next.share !== segment.share || next.px !== segment.px;
  });
}

/**
 * The `sizes` attribute (HTML, "sizes attributes"): each stretch as a media condition with its length, the last
 * without one.
 */
export function sizesAttribute(segments: readonly WidthSegment[]): string {
  return segments
    .map((segment) => {
      const length = sayLength(segment);
      return segment.below === null ? length : `(max-width: ${rounded(segment.below - 0.02)}px) ${length}`;
    })
    .join(', ');
}

function sayLength({ share, px }: WidthSegment): string {
  const vw = `${rounded(share * 100)}vw`;
  if (share === 0) return `${Math.round(px)}px`;
  if (px === 0) return vw;
  return `calc(${vw} ${px < 0 ? '-' : '+'} ${Math.abs(px)}px)`;
}

/** Average width of a letter as a share of the text's size, measured on the shipped text face. */
const LETTER_SHARE = 0.47;

/** Pages narrower than this have smaller text: a phone is held nearer, and its lines are short. */
export const SMALL_TEXT_BELOW_PX = 480;
export const SMALL_TEXT_SHARE = 0.857;

/** Size of the running text in px at a viewport; `style-sheet.ts` says the same in CSS. */
export function textSizeAt({ textSize }: Pick<HouseRules, 'textSize'>, viewport: number): number {
  return viewport < SMALL_TEXT_BELOW_PX ? textSize * SMALL_TEXT_SHARE : textSize;
}

/** How many letters fit on a line of `width` px, at a viewport. */
export function lettersPerLine(rules: Pick<HouseRules, 'textSize'>, width: number, viewport: number): number {
  return Math.floor(width / (textSizeAt(rules, viewport) * LETTER_SHARE));
}
