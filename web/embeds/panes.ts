/** One of the columns that tell the story of an embed. */
export const EMBED_PANE_LOOK = 'min-w-0 overflow-auto px-4.5 pt-3.5 pb-6 max-middle:overflow-visible';

/** One that stands after another: at its right, or under it. */
export const NEXT_PANE_LOOK = 'border-line border-l max-middle:border-t max-middle:border-l-0';
