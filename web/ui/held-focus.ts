/** What is open for a moment over a screen: nothing in it has the focus again once it is closed. */
const PASSING = '[role="menu"], [role="dialog"], [role="alertdialog"], [role="listbox"]';

let last: Element | null = null;

// Where a menu closes, what it was opened from has the focus a moment later: a dialog may be open by then.
if (typeof document !== 'undefined')
  document.addEventListener('focusin', ({ target }) => {
    if (target instanceof Element && !target.closest(PASSING)) last = target;
  });

/** What has the focus, or had it last on the screen itself. */
export function holderOfFocus(): Element | null {
  const { activeElement } = document;
  const isNowhere = activeElement === null || activeElement === document.body;
  return isNowhere || activeElement.closest(PASSING) ? last : activeElement;
}
