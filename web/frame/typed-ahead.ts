import { useEffect, useState } from 'react';

/** Keeps what is typed between asking for a field and its being there, however long that takes. */
export interface TypedAhead {
  /** A field is asked for: what is typed from now on is meant for it. */
  readonly begin: () => void;
  /** The field is there, or not wanted any more: answers what was typed for it. */
  readonly take: () => string;
}

export function useTypedAhead(): TypedAhead {
  const [ahead] = useState(typedAhead);
  useEffect(() => {
    window.addEventListener('keydown', ahead.listen, true);
    return () => window.removeEventListener('keydown', ahead.listen, true);
  }, [ahead]);
  return ahead;
}

function typedAhead() {
  let typed: string | null = null;
  return {
    begin: () => {
      typed ??= '';
    },
    take: () => {
      const said = typed ?? '';
      typed = null;
      return said;
    },
    listen: (event: KeyboardEvent) => {
      if (typed === null || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'Backspace') typed = typed.slice(0, -1);
      else if (event.key.length === 1) typed += event.key;
      else return;
      event.preventDefault();
      event.stopPropagation();
    },
  };
}
