import type { Placement, Position } from './blocks/placement/schema.ts';
import { columnRoom, LEAST_SHOWN_PX, type Room, type WidthSegment, widthAt } from './room.ts';
import { DEFAULT_SHARE, type HouseRules, marginsOf } from './target.ts';
import { NARROWEST_VIEWPORT_PX, WIDEST_VIEWPORT_PX } from './width-limits.ts';

type Laid = Pick<Placement, 'position' | 'width' | 'margins' | 'stackBelow'>;
type Measures = Pick<HouseRules, 'column' | 'gutter' | 'breakout' | 'stackBelow'>;

/** The column's width in px at a viewport. */
export function columnAt(rules: Pick<HouseRules, 'column' | 'gutter'>, viewport: number): number {
  return widthAt(columnRoom(rules), viewport);
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

/** Where a placement stands in its room: out of the column only where that is the page's own. */
export function positionIn(
  { sort }: Pick<Room, 'sort'>,
  { position }: Pick<Placement, 'position'>,
): Position {
  return sort === 'column' || (position !== 'breakout' && position !== 'bleed') ? position : 'column';
}

/**
 * The width in px at which a placement is shown in its room at a viewport (CSS px). The one function behind the sheet,
 * the proof, `sizes` and the checks; the style of the placement kind says the same in CSS.
 */
export function shownWidth(rules: Measures, placement: Laid, room: Room, viewport: number): number {
  const around = widthAt(room, viewport);
  if (isStacked(rules, placement, viewport)) return around;
  const { left, right } = marginsOf(placement);
  const most = widthAt(roomAround(rules, placement, room), viewport) - left - right;
  return Math.max(LEAST_SHOWN_PX, Math.min(wishedWidth(placement, around, most), most));
}

const WINDOW: Room = { sort: 'column', stretches: [{ below: null, share: 1, px: 0 }] };

/** The room that what stands at a position may fill: that which it stands in, or what is round the column. */
export function roomAround(rules: Measures, placement: Pick<Placement, 'position'>, room: Room): Room {
  switch (positionIn(room, placement)) {
    case 'bleed':
      return WINDOW;
    case 'breakout': {
      const most = Math.max(rules.breakout, rules.column);
      const gutters = 2 * rules.gutter;
      return {
        sort: 'column',
        stretches: [
          { below: most + gutters, share: 1, px: -gutters },
          { below: null, share: 0, px: most },
        ],
      };
    }
    default:
      return room;
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
export function textBeside(rules: Measures, placement: Laid, room: Room, viewport: number): number | null {
  if (!isBeside(placement) || isStacked(rules, placement, viewport)) return null;
  const { left, right } = marginsOf(placement);
  return Math.max(0, widthAt(room, viewport) - shownWidth(rules, placement, room, viewport) - left - right);
}

/** `shownWidth` over all viewports as straight stretches, from narrow to wide: what `sizes` says. */
export function widthSegments(rules: Measures, placement: Laid, room: Room): readonly WidthSegment[] {
  const knots = [...new Set(knotsOf(rules, placement, room))]
    .filter((k) => k > NARROWEST_VIEWPORT_PX && k < WIDEST_VIEWPORT_PX)
    .sort((a, b) => a - b);
  const edges = [NARROWEST_VIEWPORT_PX, ...knots, WIDEST_VIEWPORT_PX];
  const segments = edges
    .slice(1)
    .map((end, at) => segmentBetween(rules, placement, room, edges[at] ?? NARROWEST_VIEWPORT_PX, end));
  return joined(
    segments.map((segment, at) => (at === segments.length - 1 ? { ...segment, below: null } : segment)),
  );
}

/** Viewports at which the slope may change: the ends of the rooms' stretches, stacking, and the wish or the least width met in them. */
function knotsOf(rules: Measures, placement: Laid, room: Room): readonly number[] {
  const { left, right } = marginsOf(placement);
  const sides = left + right;
  const meets = [LEAST_SHOWN_PX, LEAST_SHOWN_PX + sides, ...wishMeets(placement, sides)];
  const stretches = [...new Set([...room.stretches, ...roomAround(rules, placement, room).stretches])];
  const knots = stretches.flatMap(({ below, share, px }) => [
    ...(below === null ? [] : [below]),
    ...(share > 0 ? meets.map((width) => (width - px) / share) : []),
  ]);
  return isBeside(placement) ? [...knots, stackingWidth(rules, placement)] : knots;
}

/** Widths of a room at which the wished width meets it, or the least width. */
function wishMeets(placement: Laid, sides: number): readonly number[] {
  if (!hasOwnWidth(placement)) return [];
  const wish = placement.width ?? { unit: '%', value: DEFAULT_SHARE[placement.position] * 100 };
  if (wish.unit === 'px') return [wish.value + sides];
  const share = wish.value / 100;
  return [LEAST_SHOWN_PX / share, ...(share < 1 ? [sides / (1 - share)] : [])];
}

function segmentBetween(
  rules: Measures,
  placement: Laid,
  room: Room,
  start: number,
  end: number,
): WidthSegment {
  // Two inner points of a straight stretch give its slope; its ends may belong to the neighbours.
  const one = start + (end - start) / 3;
  const two = start + ((end - start) * 2) / 3;
  const [first, second] = [one, two].map((viewport) => shownWidth(rules, placement, room, viewport));
  const share = ((second ?? 0) - (first ?? 0)) / (two - one);
  return { below: end, share: rounded(share), px: rounded((first ?? 0) - share * one) };
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
