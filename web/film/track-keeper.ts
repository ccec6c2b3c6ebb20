import type { CaptionTrack } from '#api/captions.ts';
import type { Cue } from '#core/film/cue.ts';
import type { Edited } from '#core/film/edit-cues.ts';
import { ApiProblem, sayFailure } from '../api/client.ts';
import { Store } from '../ui/store.ts';
import { ledger } from '../undo/ledger.ts';
import { keepTrack, lookAgain, removeTrack } from './tracks.ts';

/** How the keeping of a track is: all of it is kept, some is on its way, somebody else changed it, or a sentence says why it failed. */
type Keeping = 'kept' | 'keeping' | 'clash' | { readonly failed: string };

interface TrackState {
  readonly cues: readonly Cue[];
  /** The caption that has the attention. */
  readonly at: number | null;
  readonly keeping: Keeping;
}

const KEEP_AFTER_MILLIS = 400;
const CLASH = 412;

/** A track that is worked on: changes are seen at once, kept one after the other, and each can be taken back. */
export class TrackKeeper {
  readonly store: Store<TrackState>;
  readonly #assetId: string;
  #track: CaptionTrack;
  #timer: ReturnType<typeof setTimeout> | null = null;
  #keeping: Promise<void> = Promise.resolve();

  constructor(assetId: string, track: CaptionTrack) {
    this.#assetId = assetId;
    this.#track = track;
    this.store = new Store<TrackState>({ cues: track.cues, at: null, keeping: 'kept' });
  }

  select(at: number | null): void {
    this.store.update((state) => ({ ...state, at }));
  }

  /** Shows a change that is still being made, as an edge that is drawn; `edit` ends it. */
  show({ cues, at }: Edited): void {
    this.store.update((state) => ({ ...state, cues, at }));
  }

  /** A change that is done. `before` is what it was made of, where it was shown meanwhile. */
  edit(edited: Edited, name: string, before: readonly Cue[] = this.store.state.cues): void {
    this.show(edited);
    if (edited.cues === before) return;
    const set = (cues: readonly Cue[]) => {
      const { at } = this.store.state;
      this.show({ cues, at: at === null || cues.length === 0 ? null : Math.min(at, cues.length - 1) });
      this.#later();
    };
    ledger.add({
      name,
      scope: `film ${this.#assetId}`,
      undo: () => set(before),
      redo: () => set(edited.cues),
    });
    this.#later();
  }

  /** Keeps at once what waits to be kept. */
  flush(): Promise<void> {
    if (this.#timer === null) return this.#keeping;
    clearTimeout(this.#timer);
    this.#timer = null;
    this.#keeping = this.#keeping.then(() => this.#keep());
    return this.#keeping;
  }

  /** After a clash: what is here goes over theirs. */
  keepMine(theirs: CaptionTrack | undefined): void {
    this.#track = { ...this.#track, version: theirs?.version ?? 0 };
    this.#later();
  }

  /** After a clash: theirs takes the place of what is here. */
  takeTheirs(theirs: CaptionTrack | undefined): void {
    this.#track = theirs ?? { ...this.#track, version: 0, cues: [] };
    this.store.set({ cues: this.#track.cues, at: null, keeping: 'kept' });
  }

  #later(): void {
    this.store.update((state) => ({ ...state, keeping: 'keeping' }));
    if (this.#timer !== null) clearTimeout(this.#timer);
    this.#timer = setTimeout(() => void this.flush(), KEEP_AFTER_MILLIS);
  }

  async #keep(): Promise<void> {
    const { cues } = this.store.state;
    try {
      this.#track = await this.#kept(cues);
      if (this.store.state.cues === cues) this.store.update((state) => ({ ...state, keeping: 'kept' }));
    } catch (error) {
      const isClash = error instanceof ApiProblem && error.status === CLASH;
      // Whoever chooses between both has to see theirs as they are now.
      if (isClash) await lookAgain(this.#assetId);
      const keeping = isClash ? 'clash' : { failed: sayFailure(error) };
      this.store.update((state) => ({ ...state, keeping }));
    }
  }

  async #kept(cues: readonly Cue[]): Promise<CaptionTrack> {
    if (cues.length > 0) return keepTrack(this.#assetId, { ...this.#track, cues: [...cues] });
    if (this.#track.version > 0) await removeTrack(this.#assetId, this.#track);
    return { ...this.#track, version: 0, cues: [] };
  }
}
