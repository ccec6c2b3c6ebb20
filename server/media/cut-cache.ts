import { LRUCache } from 'lru-cache';
import type { Context } from '../context.ts';
import type { StoredCut } from '../imaging/cut-store.ts';

/** About 2 MB of memory. */
const MOST = 10_000;
/** Larger files are passed on as they are read. */
const WHOLE_LIMIT_BYTES = 1_000_000;
/** For so long the database is not asked whether the piece is still held. */
const TRUSTED_MILLIS = 5000;

/** Where cuts lie that were sent a moment ago, by their address: the many requests of one look do not each ask the database. */
export class CutCache {
  readonly #cuts: LRUCache<string, StoredCut>;

  constructor(perf: { readonly now: () => number } = performance) {
    this.#cuts = new LRUCache({ max: MOST, ttl: TRUSTED_MILLIS, ttlResolution: 0, perf });
  }

  remember(address: string, cut: StoredCut): void {
    if (cut.bytes <= WHOLE_LIMIT_BYTES) this.#cuts.set(address, cut);
  }

  /** The cut with its bytes, or undefined for one that is not known, or was thrown away since. */
  async read(
    { storage }: Pick<Context, 'storage'>,
    address: string,
  ): Promise<{ readonly cut: StoredCut; readonly bytes: Uint8Array } | undefined> {
    const cut = this.#cuts.get(address);
    if (!cut) return undefined;
    try {
      return { cut, bytes: await storage.read(cut.key) };
    } catch {
      this.#cuts.delete(address);
      return undefined;
    }
  }
}
