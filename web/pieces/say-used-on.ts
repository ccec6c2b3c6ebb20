import type { Asset } from '#api/assets.ts';
import { sayPageTitle } from '../pages/say-title.ts';

type Used = Pick<Asset, 'usedOn'>;

/** Where a piece stands: "on no page", "on “Marsh 1931”", "on 3 pages". */
export function sayUsedOn({ usedOn }: Used): string {
  const [only, another] = usedOn;
  return only && !another && only.title !== null
    ? `on “${sayPageTitle(only.title)}”`
    : sayPageCount({ usedOn });
}

/** On how many pages a piece stands: "on no page", "on 1 page", "on 3 pages". */
export function sayPageCount({ usedOn }: Used): string {
  if (usedOn.length === 0) return 'on no page';
  return `on ${countPages(usedOn.length)}`;
}

export const countPages = (pages: number): string => (pages === 1 ? '1 page' : `${pages} pages`);
