import type { Context } from '../context.ts';
import type { StoredCut } from '../imaging/cut-store.ts';

/** About 2 MB of memory. */
const KNOWN_LIMIT = 10_000;
/** Larger files are passed on as they are read. */
const WHOLE_LIMIT_BYTES = 1_000_000;

/**
 * Where cuts lie that were sent before, by their address: an address names one file for ever, so the database is not
 * asked again. The ones asked for longest ago are forgotten first.
 */
export class KnownCuts {
  readonly #known = new Map<string, StoredCut>();

  remember(address: string, cut: StoredCut): void {
    if (cut.bytes > WHOLE_LIMIT_BYTES) return;
    this.#known.delete(address);
    this.#known.set(address, cut);
    const [oldest] = this.#known.keys();
    if (this.#known.size > KNOWN_LIMIT && oldest !== undefined) this.#known.delete(oldest);
  }

  /** The cut with its bytes, or undefined for one that is not known, or was thrown away since. */
  async read(
    { storage }: Pick<Context, 'storage'>,
    address: string,
  ): Promise<{ readonly cut: StoredCut; readonly bytes: Uint8Array } | undefined> {
    const cut = this.#known.get(address);
    if (!cut) return undefined;
    try {
      const bytes = await storage.read(cut.key);
      this.remember(address, cut);
      return { cut, bytes };
    } catch {
      this.#known.delete(address);
      return undefined;
    }
  }
}
