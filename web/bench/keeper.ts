import type { AssetChange } from '#api/assets.ts';
import { ledger } from '../undo/ledger.ts';

type Write = (change: AssetChange, name: string) => Promise<void>;

/** Keeps changes one after the other; steps made while one is on its way go together as the next. */
export class Keeper {
  #waiting: { readonly change: AssetChange; readonly name: string } | null = null;
  #isKeeping = false;

  /**
   * Keeps a change, and whatever is asked meanwhile. Answers what was kept by it, or nothing where it went with one that was on
   * its way. What cannot be kept is thrown, and what waited behind it is dropped.
   */
  async keep(change: AssetChange, name: string, write: Write): Promise<AssetChange | undefined> {
    this.#waiting = { change: { ...this.#waiting?.change, ...change }, name };
    if (this.#isKeeping) return undefined;
    this.#isKeeping = true;
    try {
      // What waits here is seen done already: undo waits for it too, and not only for the one that is on its way.
      return await ledger.during(() => this.#keepAll(write));
    } finally {
      this.#isKeeping = false;
      this.#waiting = null;
    }
  }

  async #keepAll(write: Write): Promise<AssetChange> {
    let kept: AssetChange = {};
    while (this.#waiting) {
      const { change, name } = this.#waiting;
      this.#waiting = null;
      await write(change, name);
      kept = { ...kept, ...change };
    }
    return kept;
  }
}
