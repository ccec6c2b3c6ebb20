import { positionIn, shownWidth, stackingWidth } from './layout.ts';
import { widthAt } from './room.ts';
import type { Standing } from './standing.ts';
import { type HouseRules, marginsOf } from './target.ts';

/** Where a placement stands and what becomes of it on a phone, in a sentence. */
export function sayStanding({ placement, room }: Standing, rules: HouseRules): string {
  const widest = Math.max(...rules.proofWidths);
  const whole = widthAt(room, widest);
  const share = Math.round((shownWidth(rules, placement, room, widest) / whole) * 100);
  if (room.sort === 'filled') return 'It fills its place in the arrangement.';
  const column = room.sort === 'column' ? 'the column' : 'what it stands in';
  switch (positionIn(room, placement)) {
    case 'beside-left':
    case 'beside-right': {
      const side = placement.position === 'beside-left' ? 'left' : 'right';
      return `Beside the text, on the ${side}, ${share}% of ${column}. Under ${stackingWidth(rules, placement)} px it takes the whole width.`;
    }
    case 'centred':
      return `In the middle of ${column}, ${share}% of it, with no text beside it.`;
    case 'column':
      return `As wide as ${column}.`;
    case 'breakout':
      return `Out of the column, up to ${Math.max(rules.breakout, rules.column)} px wide.`;
    case 'bleed':
      return 'From one edge of the window to the other.';
  }
}

interface Shown {
  /** What the piece is called. */
  readonly name: string;
  /** Its width on the sheet now, and that of its original, in px; null where it has no px of its own. */
  readonly width: number;
  readonly of: number | null;
}

/** Everything that is drawn about a selected placement, in one sentence, for those who cannot see it. */
export function saySelected(standing: Standing, rules: HouseRules, { name, width, of }: Shown): string {
  const { top, right, bottom, left } = marginsOf(standing.placement);
  const [where = ''] = sayStanding(standing, rules).split('. ');
  const words = `${where.charAt(0).toLowerCase()}${where.slice(1)}`.replace(/\.$/u, '');
  const size = of === null ? `${Math.round(width)} px wide` : `${Math.round(width)} px shown of ${of}`;
  return `${name}: ${words}, ${size}, margins top ${top}, right ${right}, bottom ${bottom}, left ${left}.`;
}
