import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { Tooltip } from 'radix-ui';
import { act, type ReactNode } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { MemoryRouter } from 'react-router';

let open: Root | null = null;

/** Draws a part of a screen into jsdom's document, for what happens when it is used. */
export function mount(part: ReactNode): HTMLElement {
  Reflect.set(globalThis, 'IS_REACT_ACT_ENVIRONMENT', true);
  unmount();
  const ground = document.createElement('div');
  document.body.append(ground);
  open = createRoot(ground);
  act(() => {
    open?.render(
      <QueryClientProvider client={new QueryClient()}>
        <MemoryRouter>
          <Tooltip.Provider>{part}</Tooltip.Provider>
        </MemoryRouter>
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

/** A control by the words of its label. */
export function control(ground: HTMLElement, name: string): HTMLInputElement | HTMLSelectElement {
  const label = [...ground.querySelectorAll('label')].find(({ textContent }) => textContent?.trim() === name);
  const found = label?.control ?? ground.querySelector(`[aria-label="${name}"]`);
  if (found instanceof HTMLInputElement || found instanceof HTMLSelectElement) return found;
  throw new Error(`No control is called "${name}".`);
}

/** Writes into a field as a person does, and leaves it or presses Enter. */
export function write(
  field: HTMLInputElement | HTMLSelectElement,
  text: string,
  then: 'leave' | 'enter' = 'leave',
): void {
  const proto = field instanceof HTMLSelectElement ? HTMLSelectElement.prototype : HTMLInputElement.prototype;
  act(() => {
    field.focus();
    Object.getOwnPropertyDescriptor(proto, 'value')?.set?.call(field, text);
    field.dispatchEvent(
      new Event(field instanceof HTMLSelectElement ? 'change' : 'input', { bubbles: true }),
    );
  });
  act(() => {
    if (then === 'leave') field.blur();
    else field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }));
  });
}

/** A button by its words, or by what it is called to those who cannot see it. */
export function button(ground: HTMLElement, name: string): HTMLButtonElement {
  const found = [...ground.querySelectorAll('button')].find(
    (one) => (one.getAttribute('aria-label') ?? one.textContent?.trim()) === name,
  );
  if (!found) throw new Error(`No button is called "${name}".`);
  return found;
}

export function click(element: HTMLElement): void {
  act(() => element.click());
}
