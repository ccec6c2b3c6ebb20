/** Most letters of pasted text that are read at once. */
export const MOST_PASTED = 1_000_000;
