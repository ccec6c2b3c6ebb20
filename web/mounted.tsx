import { QueryClientProvider } from '@tanstack/react-query';
import { act, type ReactNode } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { MemoryRouter } from 'react-router';
import { type Answered, clientKnowing } from './testing.tsx';

let open: Root | null = null;

/** Draws a part of a screen into jsdom's document, for what happens when it is used. */
export function mount(part: ReactNode, answered: Answered = []): HTMLElement {
  Reflect.set(globalThis, 'IS_REACT_ACT_ENVIRONMENT', true);
  giveWhatJsdomLacks();
  unmount();
  const ground = document.createElement('div');
  document.body.append(ground);
  open = createRoot(ground);
  act(() => {
    open?.render(
      <QueryClientProvider client={clientKnowing(answered)}>
        <MemoryRouter>{part}</MemoryRouter>
      </QueryClientProvider>,
    );
  });
  return ground;
}

export function unmount(): void {
  act(() => open?.unmount());
  open = null;
  document.body.replaceChildren();
}

/** jsdom measures and scrolls nothing; what opens over a screen asks how large it is and where it lies. */
function giveWhatJsdomLacks(): void {
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
}

/** What has a role, of its own or by its kind of element, in the order in which it stands. */
export function allOf(ground: ParentNode, role: string): HTMLElement[] {
  const kinds: Readonly<Record<string, string>> = { button: 'button:not([role])', listitem: 'li' };
  return [
    ...ground.querySelectorAll<HTMLElement>([`[role="${role}"]`, kinds[role]].filter(Boolean).join(',')),
  ];
}

/** The words by which a person, or a screen reader, knows a control. */
function nameOf(element: HTMLElement): string {
  const labelled = element.getAttribute('aria-label');
  if (labelled !== null) return labelled;
  const labels = 'labels' in element && element.labels instanceof NodeList ? [...element.labels] : [];
  return (labels[0]?.textContent ?? element.textContent ?? '').trim();
}

/** A control by its role and its words. */
export function byRole(ground: ParentNode, role: string, name: string): HTMLElement {
  const found = allOf(ground, role).find((one) => nameOf(one) === name);
  if (!found) throw new Error(`No ${role} is called "${name}".`);
  return found;
}

/** Which of the boxes, radios or buttons of a role hold, each by its words: "on: Captions". */
export function statesOf(ground: ParentNode, role: 'checkbox' | 'radio' | 'button'): string[] {
  const attribute = role === 'button' ? 'aria-pressed' : 'aria-checked';
  return allOf(ground, role)
    .filter((one) => one.hasAttribute(attribute))
    .map((one) => `${one.getAttribute(attribute) === 'true' ? 'on' : 'off'}: ${nameOf(one)}`);
}

/** A field that is typed into, by the words of its label. */
export function control(ground: ParentNode, name: string): HTMLInputElement | HTMLTextAreaElement {
  const found = [...ground.querySelectorAll('input, textarea')].find(
    (one): one is HTMLInputElement | HTMLTextAreaElement =>
      one instanceof HTMLElement && nameOf(one) === name,
  );
  if (!found) throw new Error(`No field is called "${name}".`);
  return found;
}

/** Writes into a field as a person does, and leaves it, presses Enter, or stays in it. */
export function write(
  field: HTMLInputElement | HTMLTextAreaElement,
  text: string,
  then: 'leave' | 'enter' | 'stay' = 'leave',
): void {
  const proto =
    field instanceof HTMLInputElement ? HTMLInputElement.prototype : HTMLTextAreaElement.prototype;
  act(() => {
    field.focus();
    Object.getOwnPropertyDescriptor(proto, 'value')?.set?.call(field, text);
    field.dispatchEvent(new Event('input', { bubbles: true }));
  });
  if (then === 'leave') act(() => field.blur());
  else if (then === 'enter') press(field, 'Enter');
}

/** What a list offers, once it is opened by the keyboard. */
export function opened(list: HTMLElement): HTMLElement[] {
  act(() => list.focus());
  press(list, 'Enter');
  return allOf(document, 'option');
}

/** Chooses from a list that opens. */
export function choose(list: HTMLElement, words: string): void {
  const option = opened(list).find(({ textContent }) => textContent === words);
  if (!option) throw new Error(`The list does not offer "${words}".`);
  act(() => option.focus());
  press(option, 'Enter');
}

/** A button by its words, or by what it is called to those who cannot see it. */
export function button(ground: ParentNode, name: string): HTMLButtonElement {
  const found = byRole(ground, 'button', name);
  if (found instanceof HTMLButtonElement) return found;
  throw new Error(`"${name}" is not a button.`);
}

export function press(element: Element, key: string, more: KeyboardEventInit = {}): void {
  const event = new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more });
  act(() => void element.dispatchEvent(event));
}

export function click(element: HTMLElement): void {
  act(() => element.click());
}
