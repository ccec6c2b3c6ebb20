import { useEffect } from 'react';
import { alone } from '../frame/alone.ts';
import { useOffer } from '../frame/commands.ts';
import { useStore } from '../ui/store.ts';

/** Whether only the sheet is there, to write in without anything beside it; Escape brings the rest back. */
export function useSheetAlone(): { readonly isAlone: boolean; readonly turn: () => void } {
  const isAlone = useStore(alone);
  const turn = () => alone.update((is) => !is);
  useOffer([{ words: isAlone ? 'Show everything again' : 'Show the sheet alone', act: turn }]);
  useEffect(() => () => alone.set(false), []);
  useEffect(() => {
    if (!isAlone) return;
    const listen = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || document.querySelector('[role="dialog"]')) return;
      // The editor keeps this key from the browser, and does nothing with it.
      const isOnSheet = event.target instanceof Element && event.target.closest('.sheet-text') !== null;
      if (isOnSheet || !event.defaultPrevented) alone.set(false);
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [isAlone]);
  return { isAlone, turn };
}
