import { readLedger } from '#core/rights/ledger-file.ts';

self.addEventListener('message', ({ data }: MessageEvent<ArrayBuffer>) => {
  self.postMessage(readLedger(new Uint8Array(data)));
});
