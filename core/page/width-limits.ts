/** How wide a placement may be asked to be: in px, or in percent of the column. */
export const WIDTH_LIMITS = { px: { least: 40, most: 4000 }, '%': { least: 5, most: 100 } } as const;

interface Wished<U extends keyof typeof WIDTH_LIMITS = keyof typeof WIDTH_LIMITS> {
  readonly unit: U;
  readonly value: number;
}

/** Whether a width may be asked for. */
export function isWidth({ unit, value }: Wished): boolean {
  const { least, most } = WIDTH_LIMITS[unit];
  return value >= least && value <= most;
}

/** The closest width to a wished one that may be asked for. */
export function closestWidth<U extends keyof typeof WIDTH_LIMITS>({ unit, value }: Wished<U>): Wished<U> {
  const { least, most } = WIDTH_LIMITS[unit];
  return { unit, value: Math.min(most, Math.max(least, value)) };
}

/** Viewports from and up to these widths in px are considered for `sizes`; nothing is said of wider ones. */
export const NARROWEST_VIEWPORT_PX = 280;
export const WIDEST_VIEWPORT_PX = 4000;
