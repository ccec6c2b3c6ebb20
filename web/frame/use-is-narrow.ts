import { useSyncExternalStore } from 'react';

/** The theme's breakpoints, as questions to the browser. */
const QUESTIONS = { narrow: '(width < 761px)', middle: '(width < 1001px)' } as const;

/** Whether the screen is so narrow that panes stand one under the other, or that a third one gives way. */
export function useIsNarrow(breakpoint: keyof typeof QUESTIONS = 'narrow'): boolean {
  const question = QUESTIONS[breakpoint];
  return useSyncExternalStore(
    (onChange) => {
      const query = matchMedia(question);
      query.addEventListener('change', onChange);
      return () => query.removeEventListener('change', onChange);
    },
    () => matchMedia(question).matches,
    () => false,
  );
}
