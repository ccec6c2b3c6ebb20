import { Toaster } from 'sonner';
import { theme } from '../theme/theme.ts';
import { useStore } from '../ui/store.ts';

/**
 * What is told in passing. The library puts the focus back to where it was when it leaves the list, which is a trap
 * for Tab as long as the list is the last thing on the screen (WCAG 2.1.2); so it is not told where that was.
 */
export function Toasts() {
  return (
    <div onFocusCapture={(event) => event.stopPropagation()}>
      <Toaster theme={useStore(theme)} position="bottom-center" duration={5000} />
    </div>
  );
}
