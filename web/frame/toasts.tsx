import { type CSSProperties, useEffect } from 'react';
import { Toaster, toast } from 'sonner';
import { moving } from '../drag/moving.ts';
import { theme } from '../theme/theme.ts';
import { cx } from '../ui/cx.ts';
import { useStore } from '../ui/store.ts';
import { noticesAreShown } from '../ui/toast.ts';

/** The library's own names for what it draws a notice with. */
const LOOK = {
  fontFamily: 'inherit',
  '--normal-bg': 'var(--color-panel)',
  '--normal-text': 'var(--color-ink)',
  '--normal-border': 'var(--color-line)',
  '--border-radius': 'var(--radius-sm)',
} as CSSProperties;

/**
 * What is told in passing, where neither the tray's pieces nor what can be done with chosen ones lie under it; out of
 * the way while something is moved. The library puts the focus back to where it was when it leaves the list, which is a
 * trap for Tab as long as the list is the last thing on the screen (WCAG 2.1.2); so it is not told where that was.
 */
export function Toasts() {
  const isMoving = useStore(moving);
  useEffect(() => noticesAreShown({ tell: toast, tellFault: toast.error }), []);
  return (
    <div
      className={cx(isMoving && 'pointer-events-none invisible')}
      onFocusCapture={(event) => event.stopPropagation()}
    >
      <Toaster theme={useStore(theme)} position="bottom-right" duration={5000} style={LOOK} />
    </div>
  );
}
