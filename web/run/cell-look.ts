/** A cell of the run's table, and one of its heads, which stay in sight. */
export const CELL_LOOK = 'border-line border-b px-2.5 py-1.5 align-middle';
export const HEAD_LOOK =
  'sticky top-0 z-1 bg-ground px-2.5 pt-3 pb-1.5 text-left text-sm shadow-[inset_0_-2px_var(--color-ink)]';
