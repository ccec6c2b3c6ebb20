import { Store } from '../ui/store.ts';
import { forgetTake, keepPart, type Source, type Take } from './kept-takes.ts';

/** A closed tab loses at most so much, in milliseconds. */
const PART_MILLIS = 3000;

/** What a recording is at. */
export type Recording =
  | { readonly state: 'idle' }
  | { readonly state: 'asking' }
  | { readonly state: 'refused'; readonly sentence: string }
  | {
      readonly state: 'recording' | 'paused';
      readonly stream: MediaStream;
      readonly millis: number;
      readonly bytes: number;
    }
  | { readonly state: 'taken'; readonly take: Take };

/** Types that are recorded in, the one that everybody plays first. */
const TYPES: Readonly<Record<'film' | 'sound', readonly string[]>> = {
  film: ['video/webm;codecs=vp9,opus', 'video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'],
  sound: ['audio/webm;codecs=opus', 'audio/webm', 'audio/mp4'],
};

/** Records from the camera, the microphone or the screen, part by part. */
export class Recorder {
  readonly store = new Store<Recording>({ state: 'idle' });
  #recorder: MediaRecorder | null = null;
  #take: Take | null = null;
  #ran = 0;
  #since = 0;
  #timer: ReturnType<typeof setInterval> | null = null;

  async begin(source: Source): Promise<void> {
    this.store.set({ state: 'asking' });
    let stream: MediaStream;
    try {
      stream = await streamOf(source);
    } catch (error) {
      this.store.set({ state: 'refused', sentence: sayRefused(source, error) });
      return;
    }
    const type =
      TYPES[source === 'sound' ? 'sound' : 'film'].find((one) => MediaRecorder.isTypeSupported(one)) ?? '';
    const recorder = new MediaRecorder(stream, type === '' ? {} : { mimeType: type });
    const parts: Blob[] = [];
    const take = {
      id: crypto.randomUUID(),
      source,
      type: recorder.mimeType || type,
      begun: Date.now(),
      millis: 0,
      parts,
    };
    recorder.ondataavailable = ({ data }) => {
      if (data.size === 0) return;
      parts.push(data);
      const { id, begun } = take;
      void keepPart({
        take: id,
        at: parts.length - 1,
        source,
        type: take.type,
        begun,
        until: this.#millis(),
        bytes: data,
      });
    };
    recorder.onstop = () => this.#ended({ ...take, millis: this.#millis(), parts: [...parts] });
    // The screen may stop being shared from outside.
    for (const track of stream.getTracks()) track.onended = () => this.stop();
    this.#recorder = recorder;
    this.#take = take;
    this.#ran = 0;
    this.#since = performance.now();
    recorder.start(PART_MILLIS);
    this.#tell('recording', stream);
    this.#timer = setInterval(
      () => this.#tell(recorder.state === 'paused' ? 'paused' : 'recording', stream),
      250,
    );
  }

  pause(): void {
    if (this.#recorder?.state !== 'recording') return;
    this.#recorder.pause();
    this.#ran += performance.now() - this.#since;
    this.#tell('paused', this.#recorder.stream);
  }

  goOn(): void {
    if (this.#recorder?.state !== 'paused') return;
    this.#since = performance.now();
    this.#recorder.resume();
    this.#tell('recording', this.#recorder.stream);
  }

  stop(): void {
    if (!this.#recorder || this.#recorder.state === 'inactive') return;
    if (this.#recorder.state === 'recording') this.#ran += performance.now() - this.#since;
    this.#recorder.stop();
  }

  /** Shows a recording that was left unfinished. */
  take(take: Take): void {
    this.store.set({ state: 'taken', take });
  }

  async throwAway(id: string): Promise<void> {
    await forgetTake(id);
    this.store.set({ state: 'idle' });
  }

  #millis(): number {
    const runs = this.#recorder?.state === 'recording' ? performance.now() - this.#since : 0;
    return Math.round(this.#ran + runs);
  }

  #tell(state: 'recording' | 'paused', stream: MediaStream): void {
    const bytes = this.#take?.parts.reduce((sum, { size }) => sum + size, 0) ?? 0;
    this.store.set({ state, stream, millis: this.#millis(), bytes });
  }

  #ended(take: Take): void {
    if (this.#timer !== null) clearInterval(this.#timer);
    for (const track of this.#recorder?.stream.getTracks() ?? []) track.stop();
    this.#recorder = null;
    this.store.set({ state: 'taken', take });
  }
}

async function streamOf(source: Source): Promise<MediaStream> {
  if (!navigator.mediaDevices) throw new DOMException('', 'NotSupportedError');
  if (source !== 'screen')
    return navigator.mediaDevices.getUserMedia({ audio: true, video: source === 'camera' });
  const screen = await navigator.mediaDevices.getDisplayMedia({ video: true, audio: true });
  if (screen.getAudioTracks().length > 0) return screen;
  // The screen gives no sound of its own: whoever shows it speaks, where they let their microphone be heard.
  const voice = await navigator.mediaDevices.getUserMedia({ audio: true }).catch(() => null);
  return new MediaStream([...screen.getTracks(), ...(voice?.getTracks() ?? [])]);
}

const NAMES: Readonly<Record<Source, string>> = {
  camera: 'the camera and the microphone',
  sound: 'the microphone',
  screen: 'the screen',
};

/** What stands in the way, by the names of Media Capture and Streams (W3C), 10.2. */
function sayRefused(source: Source, error: unknown): string {
  const name = error instanceof DOMException ? error.name : '';
  if (name === 'NotAllowedError')
    return `The browser does not let Placard use ${NAMES[source]}. Allow it beside the address, and begin again. Nothing was recorded.`;
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return `There is nothing here to record with: ${NAMES[source]} cannot be found. Nothing was recorded.`;
  if (name === 'NotReadableError')
    return `Another program has ${NAMES[source]}. Close it, and begin again. Nothing was recorded.`;
  return `This browser cannot record from ${NAMES[source]}. Nothing was recorded.`;
}
