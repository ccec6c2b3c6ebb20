import type { FoundFile } from '../arrivals/dropped.ts';

/** What the sheet asks of the screen it stands on. */
export interface SheetHooks {
  readonly onFiles: (files: readonly FoundFile[], at: number | null) => void;
  /** Pieces that were dragged here from the shelf in another window. */
  readonly onPieces: (ids: readonly string[], at: number) => void;
  /** Rich text came with pictures of the web in it. */
  readonly onPictures: (addresses: readonly string[]) => void;
  /** Text was pasted, on a line by itself or among other text; answers whether it is taken as embeds. */
  readonly onPastedText: (text: string, isAlone: boolean) => boolean;
  readonly onOpenLabel: () => void;
  readonly onBesideParagraph: () => void;
  /** Chosen words are to lead somewhere: where is said on the label. */
  readonly onLinkWords: () => void;
}
