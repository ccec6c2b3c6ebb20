import { Store } from '../ui/store.ts';

/** One thing that was done and can be taken back. `scope` names the screen whose things it belongs to. */
interface Deed {
  readonly name: string;
  readonly scope: string;
  readonly undo: () => void | Promise<void>;
  readonly redo: () => void | Promise<void>;
}

interface LedgerState {
  readonly done: readonly Deed[];
  readonly undone: readonly Deed[];
  readonly isBusy: boolean;
}

const DEPTH = 300;

/** Everything that was done in this sitting, across screens, in one order. */
export class Ledger {
  readonly store = new Store<LedgerState>({ done: [], undone: [], isBusy: false });

  /** Writes down what was just done. What had been undone before can no longer be redone. */
  add(deed: Deed): void {
    this.store.update((state) => ({ ...state, done: [...state.done, deed].slice(-DEPTH), undone: [] }));
  }

  /** Forgets what belongs to a screen that is left, since it can no longer be taken back there. */
  forget(scope: string): void {
    const others = (deed: Deed) => deed.scope !== scope;
    this.store.update((state) => ({
      ...state,
      done: state.done.filter(others),
      undone: state.undone.filter(others),
    }));
  }

  async undo(): Promise<string | null> {
    const deed = this.store.state.done.at(-1);
    if (!deed || this.store.state.isBusy) return null;
    await this.#busy(deed.undo);
    this.store.update((state) => ({
      ...state,
      done: state.done.slice(0, -1),
      undone: [...state.undone, deed],
    }));
    return deed.name;
  }

  async redo(): Promise<string | null> {
    const deed = this.store.state.undone.at(-1);
    if (!deed || this.store.state.isBusy) return null;
    await this.#busy(deed.redo);
    this.store.update((state) => ({
      ...state,
      undone: state.undone.slice(0, -1),
      done: [...state.done, deed],
    }));
    return deed.name;
  }

  async #busy(work: () => void | Promise<void>): Promise<void> {
    this.store.update((state) => ({ ...state, isBusy: true }));
    try {
      await work();
    } finally {
      this.store.update((state) => ({ ...state, isBusy: false }));
    }
  }
}

export const ledger = new Ledger();
