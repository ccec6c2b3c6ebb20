import type { OfferedPicture } from '#core/page/rich-pasted.ts';
import type { FoundFile } from '../arrivals/dropped.ts';
import type { SheetText } from './rich-text.ts';

/** What the sheet asks of the screen it stands on. */
export interface SheetHooks {
  readonly onFiles: (files: readonly FoundFile[], at: number | null) => void;
  /** Pieces that were dragged here from the shelf in another window. */
  readonly onPieces: (ids: readonly string[], at: number) => void;
  /**
   * A picture that came with rich text is wanted where it stood. `at` says where that is by then, or null when it is
   * gone. Answers why it could not be had, or null.
   */
  readonly onOfferedPicture: (offer: OfferedPicture, at: () => number | null) => Promise<string | null>;
  /** Text was pasted, on a line by itself or among other text; answers whether it is taken as embeds. */
  readonly onPastedText: (text: string, isAlone: boolean) => boolean;
  /** Rich text was pasted or dropped that holds more than text: what was framed in it, and what became of the rest. */
  readonly onRichText: (read: Pick<SheetText, 'embeds' | 'leftOut'>) => void;
  /** What was pasted or done would make the page longer than pages are; it was not done. */
  readonly onTooLong: (blocks: number) => void;
  readonly onOpenLabel: () => void;
  readonly onBesideParagraph: () => void;
  /** Chosen words are to lead somewhere: where is said on the label. */
  readonly onLinkWords: () => void;
}

/** A sheet that is only looked at asks nothing of the screen. */
export const QUIET_HOOKS: SheetHooks = {
  onFiles: () => undefined,
  onOfferedPicture: async () => null,
  onPieces: () => undefined,
  onPastedText: () => false,
  onRichText: () => undefined,
  onOpenLabel: () => undefined,
  onTooLong: () => undefined,
  onBesideParagraph: () => undefined,
  onLinkWords: () => undefined,
};
