/** What the right pane is about when nothing on the sheet is selected; several pieces are in the order of their choice. */
export type Opened =
  | { readonly kind: 'asset' | 'want'; readonly id: string }
  | { readonly kind: 'several'; readonly ids: readonly string[] }
  | null;

/** The pieces that are chosen, one or several. */
export function chosenIn(opened: Opened): readonly string[] {
  if (opened?.kind === 'several') return opened.ids;
  return opened?.kind === 'asset' ? [opened.id] : [];
}

/** With a piece chosen besides, or no longer. */
export function withChosen(opened: Opened, id: string): Opened {
  const before = chosenIn(opened);
  const ids = before.includes(id) ? before.filter((one) => one !== id) : [...before, id];
  const [only] = ids;
  if (ids.length > 1) return { kind: 'several', ids };
  return only === undefined ? null : { kind: 'asset', id: only };
}
