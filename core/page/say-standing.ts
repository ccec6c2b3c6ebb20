import { shownWidth, stackingWidth } from './layout.ts';
import type { Placement } from './model.ts';
import { type HouseRules, marginsOf } from './target.ts';

/** Where a placement stands and what becomes of it on a phone, in a sentence. */
export function sayStanding(placement: Placement, rules: HouseRules): string {
  const widest = Math.max(...rules.proofWidths);
  const share = Math.round((shownWidth(rules, placement, widest) / rules.column) * 100);
  switch (placement.position) {
    case 'beside-left':
    case 'beside-right': {
      const side = placement.position === 'beside-left' ? 'left' : 'right';
      return `Beside the text, on the ${side}, ${share}% of the column. Under ${stackingWidth(rules, placement)} px it takes the whole width.`;
    }
    case 'centred':
      return `In the middle of the column, ${share}% of it, with no text beside it.`;
    case 'column':
      return 'As wide as the column.';
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
export function saySelected(placement: Placement, rules: HouseRules, { name, width, of }: Shown): string {
  const { top, right, bottom, left } = marginsOf(placement);
  const [where = ''] = sayStanding(placement, rules).split('. ');
  const standing = `${where.charAt(0).toLowerCase()}${where.slice(1)}`.replace(/\.$/u, '');
  const size = of === null ? `${Math.round(width)} px wide` : `${Math.round(width)} px shown of ${of}`;
  return `${name}: ${standing}, ${size}, margins top ${top}, right ${right}, bottom ${bottom}, left ${left}.`;
}
