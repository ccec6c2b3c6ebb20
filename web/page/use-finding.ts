import { useCallback, useEffect, useRef, useState } from 'react';
import { useOffer } from '../frame/commands.ts';

/**
 * Ctrl F finds on the page, in words that the browser does not see as well. Pressed again in the field, the key is the
 * browser's own.
 */
export function useFinding(onOpen: () => void) {
  const [isOpen, setOpen] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  const begin = useRef(onOpen);
  useEffect(() => {
    begin.current = onOpen;
  });
  const open = useCallback(() => {
    begin.current();
    setOpen(true);
    requestAnimationFrame(() => field.current?.select());
  }, []);
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      const isFind = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f';
      if (!isFind || event.shiftKey || event.altKey || document.activeElement === field.current) return;
      if (document.querySelector('[role="dialog"], [role="alertdialog"]')) return;
      event.preventDefault();
      open();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [open]);
  useOffer([{ words: 'Find and replace on this page', act: open }]);
  return { isOpen, setOpen, field };
}
