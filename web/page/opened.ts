/** What the right pane is about when nothing on the sheet is selected. */
export type Opened = { readonly kind: 'asset' | 'want'; readonly id: string } | null;
