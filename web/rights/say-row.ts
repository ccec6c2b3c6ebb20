import type { Asset } from '#api/assets.ts';
import type { LedgerRow } from '#api/rights.ts';
import { termsOf } from '#core/rights/house-licence.ts';
import { sayRegions } from '#core/rights/regions.ts';
import { sayPageTitle } from '../pages/say-title.ts';

/** From whom and under what a piece is held: "Brackwater Pictures 88-4420, bought licence, Europe". */
export function sayDeal({ label }: Asset): string {
  const from = [label.source || label.creator, label.sourceId].filter(Boolean).join(' ');
  const { territory } = label.terms;
  return [from, termsOf(label).short, territory.length === 0 ? '' : sayRegions(territory)]
    .filter(Boolean)
    .join(', ');
}

/** Where a piece stands: the one page by its title, or how many there are, and how many of them are out. */
export function sayStands(pages: LedgerRow['pages']): string {
  const [first] = pages;
  if (!first) return 'on no page';
  const out = pages.filter(({ isOut }) => isOut).length;
  const where = pages.length === 1 ? `on “${sayPageTitle(first.title)}”` : `on ${pages.length} pages`;
  if (out === 0) return where;
  return pages.length === 1
    ? `${where}, which is out`
    : `${where}, ${out === pages.length ? 'all' : out} out`;
}
