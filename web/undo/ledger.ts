import { Store } from '../ui/store.ts';

/** One thing that was done and can be taken back. `scope` names the screen whose things it belongs to. */
interface UndoEntry {
  readonly name: string;
  readonly scope: string;
  readonly undo: () => void | Promise<void>;
  readonly redo: () => void | Promise<void>;
}

interface LedgerState {
  readonly done: readonly UndoEntry[];
  readonly undone: readonly UndoEntry[];
  readonly isBusy: boolean;
}

const DEPTH = 300;

/** Everything that was done in this sitting, across screens, in one order. */
export class Ledger {
  readonly store = new Store<LedgerState>({ done: [], undone: [], isBusy: false });

  /** Writes down what was just done. What had been undone before can no longer be redone. */
  add(deed: UndoEntry): void {
    this.store.update((state) => ({ ...state, done: [...state.done, deed].slice(-DEPTH), undone: [] }));
  }

  /** Forgets what belongs to a screen that is left, since it can no longer be taken back there. */
  forget(scope: string): void {
    const others = (deed: UndoEntry) => deed.scope !== scope;
    this.store.update((state) => ({
      ...state,
      done: state.done.filter(others),
      undone: state.undone.filter(others),
    }));
  }

  /** Takes back the last deed, after any that is still being taken back: quick presses are each answered. */
  undo(): Promise<string | null> {
    return this.#inTurn(async () => {
      if (this.#underWay.size > 0) await this.#settle();
      const deed = this.store.state.done.at(-1);
      if (!deed) return null;
      await this.#busy(deed.undo);
      this.store.update((state) => ({
        ...state,
        done: state.done.filter((other) => other !== deed),
        // A deed done meanwhile leaves nothing to redo.
        undone: state.done.at(-1) === deed ? [...state.undone, deed] : [],
      }));
      return deed.name;
    });
  }

  redo(): Promise<string | null> {
    return this.#inTurn(async () => {
      const deed = this.store.state.undone.at(-1);
      if (!deed) return null;
      await this.#busy(deed.redo);
      this.store.update((state) => ({
        ...state,
        undone: state.undone.filter((other) => other !== deed),
        done: [...state.done, deed],
      }));
      return deed.name;
    });
  }

  /** What is being done and not written down yet. */
  readonly #underWay = new Set<Promise<unknown>>();

  /**
   * Does something that is written down at its end. Whoever undoes meanwhile takes back this, which they see done already, and
   * not what was done before it.
   */
  async during<T>(work: () => Promise<T>): Promise<T> {
    const doing = work();
    const settled = doing.catch(() => undefined);
    this.#underWay.add(settled);
    try {
      return await doing;
    } finally {
      this.#underWay.delete(settled);
    }
  }

  async #settle(): Promise<void> {
    while (this.#underWay.size > 0) await Promise.all(this.#underWay);
  }

  #last: Promise<unknown> = Promise.resolve();

  #inTurn(work: () => Promise<string | null>): Promise<string | null> {
    const turn = this.#last.then(work);
    this.#last = turn.catch(() => undefined);
    return turn;
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
