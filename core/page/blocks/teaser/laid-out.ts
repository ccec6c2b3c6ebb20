import { narrowedRoom, type Room } from '../../room.ts';
import type { HouseRules } from '../../target.ts';

type Measures = Pick<HouseRules, 'column' | 'gutter' | 'breakout'>;

/** Px between the teasers of a listing, and the widths of the window in px from which two and three stand beside each other. */
const LISTING = { gap: 24, two: 600, three: 900 } as const;

const widest = ({ breakout, column }: Measures) => Math.max(breakout, column);

/** What one teaser gets of a listing, which is as wide as what breaks out of the column. `listingStyle` says the same in CSS. */
export function teaserRoom(rules: Measures): Room {
  const gutters = 2 * rules.gutter;
  const part = (count: number, width: number) => (width - LISTING.gap * (count - 1)) / count;
  const most = widest(rules);
  const full = Math.max(LISTING.three, most + gutters);
  const stretches = [
    { below: LISTING.two, share: 1, px: -gutters },
    { below: LISTING.three, share: 1 / 2, px: part(2, -gutters) },
    { below: full, share: 1 / 3, px: part(3, -gutters) },
    { below: null, share: 0, px: part(3, Math.min(most, full - gutters)) },
  ];
  return { ...narrowedRoom({ sort: 'part', stretches }, 0), sort: 'filled' };
}

/** A row of teasers as a listing has them: one, two or three beside each other. */
export function listingStyle(rules: Measures): string {
  const columns = (from: number, count: number) =>
    `@container placard (width >= ${from}px) { .listing { grid-template-columns: repeat(${count}, minmax(0, 1fr)); } }`;
  return `.placard .listing { display: grid; gap: ${LISTING.gap}px; width: min(${widest(rules)}px, 100cqw - ${2 * rules.gutter}px); margin: 24px auto; }
.listing > h1 { grid-column: 1 / -1; margin: 0; }
${columns(LISTING.two, 2)}
${columns(LISTING.three, 3)}`;
}
