import { useEffect } from 'react';

/** Keeps what is typed while the field that it is meant for is still on its way. */
export function TypedMeanwhile({ onType }: { readonly onType: (change: (typed: string) => string) => void }) {
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'Backspace') onType((typed) => typed.slice(0, -1));
      else if (event.key.length === 1) onType((typed) => typed + event.key);
      else return;
      event.preventDefault();
      event.stopPropagation();
    };
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, [onType]);
  return null;
}
