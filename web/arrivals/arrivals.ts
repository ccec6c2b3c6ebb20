import type { HttpResponse, Upload } from 'tus-js-client';
import { type Arrived, ArrivedFileSchema } from '#api/assets.ts';
import { sayBytes } from '#core/media/weight.ts';
import { requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { queryClient } from '../api/queries.ts';
import { putPieces } from '../pieces/pieces.ts';
import { offerOriginal } from '../replace/offered-original.ts';
import { Store } from '../ui/store.ts';
import type { FoundFile } from './dropped.ts';
import { type Destination, forgetFile, isKept, type KeptFile, keepFile, keptFiles } from './kept-files.ts';
import { pairSidecars, takeSidecar, type WithSidecar } from './sidecars.ts';
import { uploadLimit } from './upload-limit.ts';

/** One file on its way in. `sent` and `bytes` in bytes. */
export interface Arrival {
  readonly id: string;
  readonly name: string;
  readonly bytes: number;
  readonly sent: number;
  /** "cut" waits for the line and goes on by itself; "paused" waits for a person. */
  readonly state: 'waiting' | 'sending' | 'paused' | 'cut' | 'looking' | 'in' | 'refused';
  /** What became of it, in a sentence. */
  readonly sentence: string;
  readonly assetId: string | null;
  readonly folder: string;
}

/** Told when a file is in. Answers whether it saw to the page itself; otherwise the server puts it on the tray. */
type OnArrived = (arrived: Arrived) => boolean;

interface Waiting extends KeptFile {
  readonly onArrived: OnArrived | null;
  /** Settles when the browser has its own copy of the file, or cannot have one. */
  readonly keeping: Promise<void>;
  /** Ends the hold on the file, so that another tab may see to it. */
  readonly release: () => void;
}

const AT_ONCE = 3;
const CHUNK_BYTES = 8_000_000;
const RETRY_MILLIS = [500, 1000, 3000, 5000];
/** After those, a line that stays cut is tried again this often. */
const CUT_MILLIS = 8000;
/** Progress is shown at most this often, or many files at once would hold up the screen. */
const SHOW_MILLIS = 120;
const BEGUN_AT_ONCE = 10;
/** So often at most do screens ask again for what they show, while files come in. */
const ASK_MILLIS = 1500;

export const arrivals = new Store<readonly Arrival[]>([]);

const waiting: Waiting[] = [];
const known = new Map<string, Waiting>();
const uploads = new Map<string, Upload>();
const sending = new Set<string>();

/**
 * Takes files in, several at once, each into `folder` or the folder below it that it stood in. One that is refused
 * says why, and the others go on. What is not in yet is kept by the browser: after a reload it goes on.
 */
export function bringIn(
  files: readonly FoundFile[],
  folder: string,
  to: Destination,
  onArrived: OnArrived | null = null,
): void {
  const { pairs, alone } = pairSidecars(files);
  const keptAs = ({ file, folder: inside, sidecar }: WithSidecar): KeptFile => {
    const into = [folder, inside].filter(Boolean).join('/');
    return { id: crypto.randomUUID(), file, folder: into, to, sidecar };
  };
  void bringInByAndBy(pairs.map(keptAs), onArrived);
  for (const sidecar of alone) void bringSidecar(keptAs(sidecar));
}

/** A sidecar whose picture did not come along is read at once: it is small, and has nowhere to wait. */
async function bringSidecar(kept: KeptFile): Promise<void> {
  const { id, file } = kept;
  arrivals.update((all) => [...all, lineOf(kept, 'looking', 'Is looked at')]);
  try {
    change(id, { state: 'in', sent: file.size, ...(await takeSidecar(file.name, file)) });
    askAgain();
  } catch (error) {
    change(id, { state: 'refused', sentence: sayFailure(error) });
  }
}

/** A few at a time: to ask hundreds of files for their size, and hold them all, would keep the screen from drawing. */
async function bringInByAndBy(files: readonly KeptFile[], onArrived: OnArrived | null): Promise<void> {
  const limit = await uploadLimit(files.map(({ file }) => file));
  const isFit = ({ size }: File) => size > 0 && size <= limit;
  for (let from = 0; from < files.length; from += BEGUN_AT_ONCE) {
    const some = files.slice(from, from + BEGUN_AT_ONCE);
    const lines = some.map((one) =>
      isFit(one.file) ? lineOf(one, 'waiting', 'Waits') : lineOf(one, 'refused', sayUnfit(one.file, limit)),
    );
    arrivals.update((all) => [...all, ...lines]);
    for (const one of some.filter(({ file }) => isFit(file))) {
      const keeping = keepFile(one, () => isComing(one.id));
      hold(one, onArrived, keeping);
    }
    await new Promise((resolve) => setTimeout(resolve, 0));
  }
}

const SETTLED: ReadonlySet<Arrival['state']> = new Set(['in', 'refused']);

const isComing = (id: string) => arrivals.state.some((one) => one.id === id && !SETTLED.has(one.state));

function sayUnfit(file: File, limit: number): string {
  if (file.size === 0) return `${nameOf(file)} is empty: it has no bytes. Copy it again from where it came.`;
  return `${nameOf(file)} is ${sayBytes(file.size)}, over the ${sayBytes(limit)} that are taken. Make it smaller first.`;
}

/**
 * Goes on with what an earlier load of this page, or a tab that was closed, left unfinished. A file that another tab
 * is sending is left to it, and taken over when that tab is gone.
 */
export async function goOn(): Promise<void> {
  for (const kept of await keptFiles()) if (!known.has(kept.id)) hold(kept, null, null);
}

/** Holds a file for this tab for as long as it is on its way, then lets it be sent. */
function hold(kept: KeptFile, onArrived: OnArrived | null, keeping: Promise<void> | null): void {
  const work = async () => {
    // Meanwhile another tab may have brought it in, or somebody stopped it.
    const isWanted = keeping === null ? await isKept(kept.id) : isComing(kept.id);
    if (!isWanted) {
      drop(kept.id);
      return;
    }
    await new Promise<void>((release) => {
      const entry = { ...kept, onArrived, keeping: keeping ?? Promise.resolve(), release };
      known.set(kept.id, entry);
      if (!arrivals.state.some(({ id }) => id === kept.id))
        arrivals.update((all) => [...all, lineOf(kept, 'waiting', 'Goes on where it stopped')]);
      waiting.push(entry);
      pump();
    });
  };
  // Outside a secure context there are no locks; then one tab at a time is the person's own care.
  if ('locks' in navigator) void navigator.locks.request(`placard-arrival-${kept.id}`, work);
  else void work();
}

function lineOf({ id, file, folder }: KeptFile, state: Arrival['state'], sentence: string): Arrival {
  return { id, name: nameOf(file), bytes: file.size, sent: 0, state, sentence, assetId: null, folder };
}

const nameOf = (file: File) => file.name || 'pasted picture';

/** Stops a file that is not in yet; nothing of it is kept. */
export function stopArrival(id: string): void {
  const upload = uploads.get(id);
  if (upload) void upload.abort(true).catch(() => undefined);
  settle(id);
  drop(id);
}

function drop(id: string): void {
  arrivals.update((all) => all.filter((one) => one.id !== id));
}

/** Halts a file where it is; what has come so far stays. */
export function pauseArrival(id: string): void {
  const upload = uploads.get(id);
  if (upload) void upload.abort().catch(() => undefined);
  const at = waiting.findIndex((one) => one.id === id);
  if (at >= 0) waiting.splice(at, 1);
  change(id, { state: 'paused', sentence: 'Paused' });
  free(id);
}

/** Goes on with a file that was paused or cut off. */
export function resumeArrival(id: string): void {
  const entry = known.get(id);
  if (!entry || sending.has(id) || waiting.includes(entry)) return;
  change(id, { state: 'waiting', sentence: 'Waits' });
  waiting.push(entry);
  pump();
}

const HALTABLE: ReadonlySet<Arrival['state']> = new Set(['waiting', 'sending', 'cut']);

export function pauseAll(): void {
  for (const { id, state } of arrivals.state) if (HALTABLE.has(state)) pauseArrival(id);
}

export function resumeAll(): void {
  for (const { id, state } of arrivals.state) if (state === 'paused' || state === 'cut') resumeArrival(id);
}

export function stopAll(): void {
  for (const { id, state } of arrivals.state) if (state !== 'in' && state !== 'refused') stopArrival(id);
}

export function clearArrivals(): void {
  arrivals.update((all) => all.filter((one) => one.state !== 'in' && one.state !== 'refused'));
}

function change(id: string, part: Partial<Arrival>): void {
  arrivals.update((all) => all.map((one) => (one.id === id ? { ...one, ...part } : one)));
}

function pump(): void {
  while (sending.size < AT_ONCE) {
    const next = waiting.shift();
    if (!next) return;
    sending.add(next.id);
    void send(next);
  }
}

/** The place in the queue is free for the next one. */
function free(id: string): void {
  uploads.delete(id);
  if (sending.delete(id)) pump();
}

/** The file is in, refused or stopped: nothing of it has to be remembered. */
function settle(id: string): void {
  const at = waiting.findIndex((one) => one.id === id);
  if (at >= 0) waiting.splice(at, 1);
  const entry = known.get(id);
  void entry?.keeping.then(() => forgetFile(id)).then(entry.release);
  known.delete(id);
  free(id);
}

let sender: Promise<typeof import('tus-js-client')> | null = null;

/** What sends a file comes with the first of them; where the line is cut just then, it is asked for again. */
async function loadSender() {
  sender ??= import('tus-js-client');
  try {
    return await sender;
  } catch {
    sender = null;
    return null;
  }
}

async function send(entry: Waiting): Promise<void> {
  const { id, file, folder, to } = entry;
  change(id, { state: 'sending', sentence: 'Comes in' });
  const tus = await loadSender();
  if (!sending.has(id)) return;
  if (!tus) {
    failed(entry, null);
    return;
  }
  let shownAt = 0;
  const upload = new tus.Upload(file, {
    endpoint: '/api/uploads',
    chunkSize: CHUNK_BYTES,
    retryDelays: RETRY_MILLIS,
    metadata: {
      filename: file.name || 'pasted.png',
      folder,
      ...(to.pageId ? { page: to.pageId } : {}),
    },
    fingerprint: async () => `placard-${id}`,
    removeFingerprintOnSuccess: true,
    onProgress: (sent) => {
      const now = performance.now();
      if (sent < file.size && now - shownAt < SHOW_MILLIS) return;
      shownAt = now;
      change(id, { state: 'sending', sent, sentence: `${sayBytes(sent)} of ${sayBytes(file.size)}` });
    },
    onError: (error) => failed(entry, error instanceof tus.DetailedError ? error.originalResponse : null),
    onSuccess: () => void arrive(entry, upload),
  });
  uploads.set(id, upload);
  upload.findPreviousUploads().then((earlier) => {
    const [first] = earlier;
    if (first) upload.resumeFromPreviousUpload(first);
    if (uploads.get(id) === upload) upload.start();
  });
}

/** `answer` is what the server said, where the line held until then. */
function failed(entry: Waiting, answer: HttpResponse | null): void {
  const status = answer?.getStatus() ?? 0;
  if (status >= 400 && status < 500 && status !== 409 && status !== 423 && status !== 429) {
    const why = status === 413 && answer ? answer.getBody() : `${nameOf(entry.file)} was not taken.`;
    change(entry.id, { state: 'refused', sentence: why });
    settle(entry.id);
    return;
  }
  // No answer, or a server that is starting again: nothing is lost, and it goes on by itself.
  change(entry.id, { state: 'cut', sentence: 'Waits for the line, goes on by itself' });
  free(entry.id);
  setTimeout(() => {
    if (arrivals.state.some(({ id, state }) => id === entry.id && state === 'cut')) resumeArrival(entry.id);
  }, CUT_MILLIS);
}

async function arrive(entry: Waiting, upload: Upload): Promise<void> {
  const { id, to, onArrived, sidecar } = entry;
  change(id, { state: 'looking', sentence: 'Is looked at', sent: entry.file.size });
  try {
    const uploadId = upload.url?.split('/').at(-1) ?? '';
    const body = { uploadId, ...(sidecar ? { sidecar: await sidecar.text() } : {}) };
    const arrived = await requestJson('post /arrivals', ArrivedFileSchema, { body });
    putPieces([arrived.asset]);
    // On one that is held already it says what nobody has said there yet.
    const besides =
      sidecar && !arrived.isNew ? (await takeSidecar(`${arrived.asset.stem}.xmp`, sidecar)).sentence : '';
    if (!onArrived?.(arrived) && to.pageId) await putOnTray(to.pageId, [arrived.asset.id], to.wantId);
    const sentence = [arrived.sentence, besides].filter(Boolean).join(' ');
    change(id, { state: 'in', sentence, assetId: arrived.asset.id });
    if (arrived.comp) offerOriginal(arrived.comp, arrived.asset);
    askAgain();
    settle(id);
  } catch (error) {
    if (isPassing(error)) failed(entry, null);
    else {
      change(id, { state: 'refused', sentence: sayFailure(error) });
      settle(id);
    }
  }
}

let askedAt = Number.NEGATIVE_INFINITY;
let isAskingSoon = false;

/** Screens ask again for what they show: at once, and then no oftener than the limit while many files come in. */
function askAgain(): void {
  if (isAskingSoon) return;
  isAskingSoon = true;
  const wait = Math.max(0, askedAt + ASK_MILLIS - performance.now());
  setTimeout(() => {
    isAskingSoon = false;
    askedAt = performance.now();
    for (const key of ['shelf', 'folders', 'desk']) void queryClient.invalidateQueries({ queryKey: [key] });
  }, wait);
}

function isPassing(error: unknown): boolean {
  return error instanceof Error && 'isPassing' in error && error.isPassing === true;
}

/** Told after pieces were put on a page's tray by the server, for whoever has that page open. */
export const onTray = new EventTarget();

/** Puts pieces on a page's tray, the first of them into a want where one is named. */
export async function putOnTray(
  pageId: string,
  assetIds: readonly string[],
  wantId: string | null,
): Promise<void> {
  await requestVoid('post /pages/{id}/tray', {
    path: { id: pageId },
    body: { add: assetIds, remove: [], wantId },
  });
  onTray.dispatchEvent(new CustomEvent('change', { detail: pageId }));
  for (const key of ['pages', 'desk', 'gather-page']) void queryClient.invalidateQueries({ queryKey: [key] });
}

/** Takes pieces off a page's tray again. */
export async function takeOffTray(pageId: string, assetIds: readonly string[]): Promise<void> {
  await requestVoid('post /pages/{id}/tray', {
    path: { id: pageId },
    body: { add: [], remove: assetIds, wantId: null },
  });
  onTray.dispatchEvent(new CustomEvent('change', { detail: pageId }));
  for (const key of ['pages', 'desk', 'gather-page']) void queryClient.invalidateQueries({ queryKey: [key] });
}
