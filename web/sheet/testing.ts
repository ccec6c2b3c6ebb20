import { beforeAll } from 'vitest';

/** jsdom lays nothing out, and the editor asks where the selection is to bring it into sight. */
export function layNothingOut(): void {
  beforeAll(() => {
    const nowhere = () => ({
      left: 0,
      top: 0,
      right: 0,
      bottom: 0,
      width: 0,
      height: 0,
      x: 0,
      y: 0,
      toJSON: () => '',
    });
    Range.prototype.getBoundingClientRect = nowhere;
    Range.prototype.getClientRects = () => Object.assign([], { item: () => null });
  });
}

/** A screen that takes nothing from the sheet. */
export const NO_HOOKS = {
  onFiles: () => undefined,
  onOfferedPicture: async () => null,
  onPieces: () => undefined,
  onPastedText: () => false,
  onRichText: () => undefined,
  onOpenLabel: () => undefined,
  onBesideParagraph: () => undefined,
  onLinkWords: () => undefined,
};
