/** Most letters of pasted text that are read at once. */
export const MOST_PASTED = 1_000_000;

/** How high in px a thing without a shape of its own may stand. */
export const HEIGHT_LIMITS = { least: 40, most: 4000 } as const;
