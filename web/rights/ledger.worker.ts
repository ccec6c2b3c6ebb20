import type { HouseLicence } from '#core/rights/house-licence.ts';
import { readLedger } from '#core/rights/ledger-file.ts';

/** A file to be read, with the licences of the house. */
export interface LedgerToRead {
  readonly bytes: ArrayBuffer;
  readonly ofHouse: readonly HouseLicence[];
}

self.addEventListener('message', ({ data }: MessageEvent<LedgerToRead>) => {
  self.postMessage(readLedger(new Uint8Array(data.bytes), data.ofHouse));
});
