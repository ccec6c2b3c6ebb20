import type { Readable } from 'node:stream';

/** Where originals, cuts and bundles are kept. Keys are relative paths of safe letters; what is stored never changes. */
export interface Storage {
  /**
   * Stores the file at `path` under `key`, whole or not at all. The file at `path` is left there; what is stored is a copy,
   * so that nothing that still writes to the one changes the other. With `sha256` (hex), what came to be stored is
   * compared with it; throws `FileChanged` where it is not that file any more.
   */
  readonly take: (key: string, path: string, sha256?: string) => Promise<void>;
  readonly put: (key: string, bytes: Uint8Array) => Promise<void>;
  readonly read: (key: string) => Promise<Buffer>;
  readonly stream: (key: string) => Promise<Readable>;
  readonly has: (key: string) => Promise<boolean>;
  readonly remove: (key: string) => Promise<void>;
  /** Runs `use` with a path at which the stored bytes can be read. */
  /** Every stored key below a folder of keys ("cuts"), with when it was stored. Half-written files are not among them. */
  readonly list: (folder: string) => AsyncIterable<Stored>;
  /** Removes what was left half-written before `before`; answers how many files. */
  readonly clear: (before: Date) => Promise<number>;
  readonly withFile: <T>(key: string, use: (path: string) => Promise<T>) => Promise<T>;
}

export interface Stored {
  readonly key: string;
  readonly at: Date;
}

export const originalKey = (sha256: string) => `originals/${sha256.slice(0, 2)}/${sha256}`;

export function cutKey(
  sha256: string,
  recipe: string,
  width: number,
  format: string,
  quality: number,
): string {
  return `cuts/${sha256.slice(0, 2)}/${sha256}/${recipe}/${width}-q${quality}.${format}`;
}

/** What was made of a film; `recipe` in letters that are safe in a name. */
export const filmKey = (sha256: string, recipe: string, width: number, extension: string): string =>
  `films/${sha256.slice(0, 2)}/${sha256}/${recipe}/${width}.${extension}`;

/** What readers of pages that were pasted elsewhere are served. */
export const sentKey = (sha256: string) => `sent/${sha256.slice(0, 2)}/${sha256}`;

export const bundleKey = (jobId: string) => `bundles/${jobId}.zip`;

const SAFE_KEY = /^[a-z0-9]+(\/[A-Za-z0-9][A-Za-z0-9._-]*)+$/;

/** Asserted at the one point that all keys pass, for a call that forgets to make a safe one. */
export function assertSafeKey(key: string): void {
  if (!SAFE_KEY.test(key) || key.includes('..'))
    throw new RangeError(`Not a storage key: "${key.slice(0, 80)}"`);
}
