import { lazy, Suspense } from 'react';
import type { TipProps } from './tip-shown.tsx';

/** Nobody hovers before the first screen stands: what finds a tip its place comes after that. */
const TipShown = lazy(() => import('./tip-shown.tsx'));

/** A word for a control that shows only a drawing. */
export function Tip({ words, children }: TipProps) {
  return (
    <Suspense fallback={children}>
      <TipShown words={words}>{children}</TipShown>
    </Suspense>
  );
}
