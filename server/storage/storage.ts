import type { Readable } from 'node:stream';

/** Where originals, cuts and bundles are kept. Keys are relative paths of safe letters; what is stored never changes. */
export interface Storage {
  /** Stores the file at `path` under `key`, whole or not at all. The file at `path` is left there. */
  readonly take: (key: string, path: string) => Promise<void>;
  readonly put: (key: string, bytes: Uint8Array) => Promise<void>;
  readonly read: (key: string) => Promise<Buffer>;
  readonly stream: (key: string) => Promise<Readable>;
  readonly has: (key: string) => Promise<boolean>;
  readonly remove: (key: string) => Promise<void>;
  /** Runs `use` with a path at which the stored bytes can be read. */
  readonly withFile: <T>(key: string, use: (path: string) => Promise<T>) => Promise<T>;
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

export const bundleKey = (jobId: string) => `bundles/${jobId}.zip`;

const SAFE_KEY = /^[a-z0-9]+(\/[A-Za-z0-9][A-Za-z0-9._-]*)+$/;

/** Asserted at the one point that all keys pass, for a call that forgets to make a safe one. */
export function assertSafeKey(key: string): void {
  if (!SAFE_KEY.test(key) || key.includes('..'))
    throw new RangeError(`Not a storage key: "${key.slice(0, 80)}"`);
}
