import { useSyncExternalStore } from 'react';

/** State over time kept out of the framework: a value, a way to change it, and those who want to know. */
export class Store<T> {
  #state: T;
  readonly #listeners = new Set<() => void>();

  constructor(state: T) {
    this.#state = state;
  }

  get state(): T {
    return this.#state;
  }

  set(next: T): void {
    if (Object.is(next, this.#state)) return;
    this.#state = next;
    for (const listener of [...this.#listeners]) listener();
  }

  update(change: (state: T) => T): void {
    this.set(change(this.#state));
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };
}

export function useStore<T>(store: Store<T>): T {
  return useSyncExternalStore(store.subscribe, () => store.state);
}
