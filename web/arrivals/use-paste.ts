import { useEffect, useRef } from 'react';

type Take = (data: DataTransfer) => boolean;

/**
 * What is pasted anywhere on a screen but into a field or text. `take` says whether it was taken; null while nothing
 * can be.
 */
export function usePaste(take: Take | null): void {
  usePasteAt('document', take);
}

/** As `usePaste`, for what the screen itself did not take: a paste comes to the window after the document. */
export function usePasteLeftOver(take: Take | null): void {
  usePasteAt('window', take);
}

function usePasteAt(where: 'document' | 'window', take: Take | null): void {
  const latest = useRef(take);
  useEffect(() => {
    latest.current = take;
  }, [take]);
  useEffect(() => {
    const paste = (event: Event) => {
      if (!(event instanceof ClipboardEvent) || !event.clipboardData) return;
      if (event.defaultPrevented || isIntoText(event.target)) return;
      if (latest.current?.(event.clipboardData)) event.preventDefault();
    };
    const place = where === 'document' ? document : window;
    place.addEventListener('paste', paste);
    return () => place.removeEventListener('paste', paste);
  }, [where]);
}

function isIntoText(target: EventTarget | null): boolean {
  return target instanceof Element && target.closest('input, textarea, [contenteditable="true"]') !== null;
}
