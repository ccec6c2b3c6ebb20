/** Widths in px of the pictures that screens show of a piece. */
export const THUMB_PX = 480;
export const VIEW_PX = 1600;
