import type { Context } from '../context.ts';
import type { StoredCut } from '../imaging/cut-store.ts';

/** About 2 MB of memory. */
const KNOWN_LIMIT = 10_000;
/** Larger files are passed on as they are read. */
const WHOLE_LIMIT_BYTES = 1_000_000;

/** For so long the database is not asked whether the piece is still held. */
const TRUSTED_MILLIS = 5000;

/**
 * Where cuts lie that were sent a moment ago, by their address, so that the many requests of one look do not each ask
 * the database. The ones asked for longest ago are forgotten first.
 */
export class KnownCuts {
  readonly #known = new Map<string, StoredCut & { readonly until: number }>();

  remember(address: string, cut: StoredCut, now = Date.now()): void {
    if (cut.bytes > WHOLE_LIMIT_BYTES) return;
    this.#known.delete(address);
    this.#known.set(address, { ...cut, until: now + TRUSTED_MILLIS });
    const [oldest] = this.#known.keys();
    if (this.#known.size > KNOWN_LIMIT && oldest !== undefined) this.#known.delete(oldest);
  }

  /** The cut with its bytes, or undefined for one that is not known, or was thrown away since. */
  async read(
    { storage }: Pick<Context, 'storage'>,
    address: string,
    now = Date.now(),
  ): Promise<{ readonly cut: StoredCut; readonly bytes: Uint8Array } | undefined> {
    const cut = this.#known.get(address);
    if (!cut || cut.until < now) return undefined;
    try {
      const bytes = await storage.read(cut.key);
      return { cut, bytes };
    } catch {
      this.#known.delete(address);
      return undefined;
    }
  }
}
