import { QueryClientProvider } from '@tanstack/react-query';
import { cleanup, queryAllByRole, render, within } from '@testing-library/react';
import { userEvent } from '@testing-library/user-event';
import { act, type ReactNode } from 'react';
import { MemoryRouter } from 'react-router';
import { type Answered, clientKnowing } from './testing.tsx';

/** Draws a part of a screen into jsdom's document, for what happens when it is used. */
export function mount(part: ReactNode, answered: Answered = []): HTMLElement {
  giveWhatJsdomLacks();
  unmount();
  const { container } = render(
    <QueryClientProvider client={clientKnowing(answered)}>
      <MemoryRouter>{part}</MemoryRouter>
    </QueryClientProvider>,
  );
  return container;
}

export function unmount(): void {
  cleanup();
  document.body.replaceChildren();
}

/** jsdom measures and scrolls nothing; what opens over a screen asks how large it is and where it lies. */
function giveWhatJsdomLacks(): void {
  Reflect.set(globalThis, 'IS_REACT_ACT_ENVIRONMENT', true);
  class ObservesNothing {
    observe() {}
    unobserve() {}
    disconnect() {}
  }
  if (!('ResizeObserver' in globalThis)) Reflect.set(globalThis, 'ResizeObserver', ObservesNothing);
  if (!('scrollIntoView' in Element.prototype))
    Reflect.set(Element.prototype, 'scrollIntoView', () => undefined);
  if (!('checkVisibility' in Element.prototype))
    Reflect.set(Element.prototype, 'checkVisibility', () => true);
  if (!('hasPointerCapture' in Element.prototype))
    Reflect.set(Element.prototype, 'hasPointerCapture', () => false);
}

/** What has a role, of its own or by its kind of element, in the order in which it stands. */
export function allOf(ground: Document | HTMLElement, role: string): HTMLElement[] {
  // Where a list is open, what lies under it is hidden from screen readers, and still there to be counted.
  return queryAllByRole(ground instanceof Document ? ground.body : ground, role, { hidden: true });
}

/** A control by its role and its name, as a screen reader says it. */
export function byRole(ground: HTMLElement, role: string, name: string | RegExp): HTMLElement {
  return within(ground).getByRole(role, { name, hidden: true });
}

/** Which of the boxes, radios or buttons of a role hold, each by its words: "on: Captions". */
export function statesOf(ground: HTMLElement, role: 'checkbox' | 'radio' | 'button'): string[] {
  const attribute = role === 'button' ? 'aria-pressed' : 'aria-checked';
  return allOf(ground, role)
    .filter((one) => one.hasAttribute(attribute))
    .map((one) => `${one.getAttribute(attribute) === 'true' ? 'on' : 'off'}: ${wordsBeside(one)}`);
}

function wordsBeside(element: HTMLElement): string {
  const labels = 'labels' in element && element.labels instanceof NodeList ? [...element.labels] : [];
  return (element.getAttribute('aria-label') ?? labels[0]?.textContent ?? element.textContent ?? '').trim();
}

/** A field that is typed into, by the words of its label. */
export function control(ground: HTMLElement, name: string): HTMLInputElement | HTMLTextAreaElement {
  const found = within(ground).getByLabelText(name, { selector: 'input, textarea' });
  if (found instanceof HTMLInputElement || found instanceof HTMLTextAreaElement) return found;
  throw new Error(`"${name}" is not typed into.`);
}

/** Writes into a field in one go, in the place of what stands there, and leaves it, presses Enter, or stays in it. */
export async function write(
  field: HTMLInputElement | HTMLTextAreaElement,
  text: string,
  then: 'leave' | 'enter' | 'stay' = 'leave',
): Promise<void> {
  const user = userEvent.setup();
  act(() => field.focus());
  field.select();
  if (text === '') await user.keyboard('{Delete}');
  else await user.paste(text);
  if (then === 'leave') act(() => field.blur());
  else if (then === 'enter') await user.keyboard('{Enter}');
}

/** What a list offers, once it is opened by the keyboard. */
export async function opened(list: HTMLElement): Promise<HTMLElement[]> {
  await press(list, 'Enter');
  // A list in a form has another, for the browser's own filling in, which is never shown.
  return within(within(document.body).getByRole('listbox')).getAllByRole('option');
}

/** Chooses from a list that opens. */
export async function choose(list: HTMLElement, words: string): Promise<void> {
  const option = (await opened(list)).find(({ textContent }) => textContent === words);
  if (!option) throw new Error(`The list does not offer "${words}".`);
  await press(option, 'Enter');
}

/** A button by its name. */
export function button(ground: HTMLElement, name: string | RegExp): HTMLElement {
  return byRole(ground, 'button', name);
}

type Held = 'Alt' | 'Control' | 'Shift';

/** Presses a key where an element has the focus, with others held. */
export async function press(element: HTMLElement, key: string, ...held: readonly Held[]): Promise<void> {
  act(() => element.focus());
  const down = held.map((one) => `{${one}>}`).join('');
  const up = held.map((one) => `{/${one}}`).join('');
  await userEvent.keyboard(`${down}{${key}}${up}`);
}

export async function click(element: HTMLElement): Promise<void> {
  await userEvent.click(element);
}
