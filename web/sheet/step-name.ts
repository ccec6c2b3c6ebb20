/** Marks a transaction with the name that undo says. */
export const NAME_META = 'placard-name';
