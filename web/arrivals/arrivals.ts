import { DetailedError, Upload } from 'tus-js-client';
import { type Arrived, ArrivedSchema } from '#api/assets.ts';
import { sayBytes } from '#core/media/weight.ts';
import { ask, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { putPieces } from '../pieces/pieces.ts';
import { Store } from '../ui/store.ts';

/** One file on its way in. `sent` and `bytes` in bytes. */
export interface Arrival {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
  readonly sent: number;
  readonly state: 'waiting' | 'sending' | 'looking' | 'in' | 'refused';
  /** What became of it, in a sentence. */
  readonly sentence: string;
  readonly assetId: string | null;
  readonly folder: string;
}

type OnArrived = (arrived: Arrived) => void;

interface Waiting {
  readonly id: string;
  readonly file: File;
  readonly folder: string;
  readonly onArrived: OnArrived;
}

const AT_ONCE = 3;
const CHUNK_BYTES = 8_000_000;
const RETRY_MILLIS = [500, 1000, 3000, 5000, 10_000];
/** The server has its own limit; this one only says it before anything is sent. */
const LIMIT_BYTES = 150_000_000;

export const arrivals = new Store<readonly Arrival[]>([]);

const waiting: Waiting[] = [];
const uploads = new Map<string, Upload>();
let running = 0;

/** Takes files in, several at once. One that is refused says why, and the others go on. */
export function bringIn(files: readonly File[], folder: string, onArrived: OnArrived): void {
  for (const file of files) {
    const id = crypto.randomUUID();
    const fresh: Arrival = {
      id,
      name: file.name || 'pasted picture',
      bytes: file.size,
      sent: 0,
      state: 'waiting',
      sentence: 'Waits',
      assetId: null,
      folder,
    };
    arrivals.update((all) => [...all, fresh]);
    if (file.size > LIMIT_BYTES)
      refuse(
        id,
        `${fresh.name} is ${sayBytes(file.size)}, over the ${sayBytes(LIMIT_BYTES)} that are taken. Make it smaller first.`,
      );
    else waiting.push({ id, file, folder, onArrived });
  }
  pump();
}

/** Stops a file that is not in yet; nothing of it is kept. */
export function stopArrival(id: string): void {
  const at = waiting.findIndex((one) => one.id === id);
  if (at >= 0) waiting.splice(at, 1);
  const upload = uploads.get(id);
  if (upload) {
    void upload.abort(true).catch(() => undefined);
    settle(id);
  }
  arrivals.update((all) => all.filter((one) => one.id !== id));
}

export function clearArrivals(): void {
  arrivals.update((all) => all.filter((one) => one.state !== 'in' && one.state !== 'refused'));
}

function change(id: string, part: Partial<Arrival>): void {
  arrivals.update((all) => all.map((one) => (one.id === id ? { ...one, ...part } : one)));
}

function refuse(id: string, sentence: string): void {
  change(id, { state: 'refused', sentence });
}

function pump(): void {
  while (running < AT_ONCE) {
    const next = waiting.shift();
    if (!next) return;
    running += 1;
    send(next);
  }
}

function settle(id: string): void {
  if (!uploads.delete(id)) return;
  running -= 1;
  pump();
}

function send({ id, file, folder, onArrived }: Waiting): void {
  if (file.size === 0) {
    refuse(id, `${file.name} is empty: it has no bytes. Copy it again from where it came.`);
    running -= 1;
    return;
  }
  change(id, { state: 'sending', sentence: 'Comes in' });
  const upload = new Upload(file, {
    endpoint: '/api/uploads',
    chunkSize: CHUNK_BYTES,
    retryDelays: RETRY_MILLIS,
    metadata: { filename: file.name || 'pasted.png', folder },
    removeFingerprintOnSuccess: true,
    onProgress: (sent) => change(id, { sent, sentence: `${sayBytes(sent)} of ${sayBytes(file.size)}` }),
    onError: (error) => {
      const answer = error instanceof DetailedError ? error.originalResponse : null;
      const isTooLarge = answer?.getStatus() === 413;
      refuse(
        id,
        isTooLarge
          ? answer.getBody()
          : `${file.name} did not come through. Nothing of it was kept; hand it in again.`,
      );
      settle(id);
    },
    onSuccess: () => void arrive(id, upload, onArrived),
  });
  uploads.set(id, upload);
  upload.findPreviousUploads().then((earlier) => {
    const [first] = earlier;
    if (first) upload.resumeFromPreviousUpload(first);
    if (uploads.has(id)) upload.start();
  });
}

async function arrive(id: string, upload: Upload, onArrived: OnArrived): Promise<void> {
  change(id, { state: 'looking', sentence: 'Is looked at' });
  try {
    const uploadId = upload.url?.split('/').at(-1) ?? '';
    const arrived = await ask(ArrivedSchema, '/arrivals', { method: 'POST', body: { uploadId } });
    putPieces([arrived.asset]);
    change(id, { state: 'in', sentence: arrived.sentence, assetId: arrived.asset.id });
    onArrived(arrived);
    for (const key of ['shelf', 'folders', 'desk']) void queryClient.invalidateQueries({ queryKey: [key] });
  } catch (error) {
    refuse(id, sayFailure(error));
  }
  settle(id);
}
