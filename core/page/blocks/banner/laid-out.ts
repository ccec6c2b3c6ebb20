import type { OverPlace } from '../../../media/over-words.ts';
import type { Banner } from './schema.ts';

/** The selector of a banner whose words stand at a place. */
export const atPlace = (place: OverPlace) => `.at-${place.replace(' ', '-')}`;

/** The classes of a banner: how wide it is, and where its words stand. */
export function bannerClass({ position, place, plate }: Omit<Banner['attrs'], 'id'>): string {
  return `banner ${position} ${atPlace(place).slice(1)}${plate ? ' plated' : ''}`;
}

/** The colours of its words as custom properties. */
export function bannerStyles({ ink, plate }: Omit<Banner['attrs'], 'id'>): string {
  return `--ink:${ink}${plate ? `;--plate:${plate}` : ''}`;
}
