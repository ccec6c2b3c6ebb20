/** Told when pages were changed from outside their own screen, as by a replacement everywhere or its undo. */
export const pagesChanged = new EventTarget();

export const tellPagesChanged = (): void => {
  pagesChanged.dispatchEvent(new Event('change'));
};
