/** What the sheet asks of the screen it stands on. */
export interface SheetHooks {
  readonly onFiles: (files: readonly File[], at: number | null) => void;
  readonly onOpenLabel: () => void;
  readonly onBesideParagraph: () => void;
}
