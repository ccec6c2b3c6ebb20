import { useEffect, useState, useSyncExternalStore } from 'react';
import type { Span } from '#core/film/recipe.ts';
import { Store } from '../ui/store.ts';

interface ClockState {
  /** In milliseconds of the film as it came. */
  readonly at: number;
  readonly isPlaying: boolean;
}

/** The moment that a film is at. Whoever shows it asks by itself, so that nothing else is drawn anew with each picture. */
export class Clock {
  readonly store = new Store<ClockState>({ at: 0, isPlaying: false });
  #media: HTMLMediaElement | null = null;
  #kept: readonly Span[] = [];
  #frame = 0;

  /** The player that it goes by; answers how to let go of it. */
  attach(media: HTMLMediaElement): () => void {
    this.#media = media;
    const tell = () => this.#tell();
    const run = () => {
      this.#skip();
      tell();
      if (!media.paused) this.#frame = requestAnimationFrame(run);
    };
    const events = ['pause', 'seeked', 'seeking', 'loadedmetadata', 'timeupdate'] as const;
    for (const event of events) media.addEventListener(event, tell);
    media.addEventListener('play', run);
    return () => {
      cancelAnimationFrame(this.#frame);
      for (const event of events) media.removeEventListener(event, tell);
      media.removeEventListener('play', run);
      this.#media = null;
    };
  }

  /** The parts that are played; what lies between them is passed over. */
  keep(kept: readonly Span[]): void {
    this.#kept = kept;
  }

  toggle(): void {
    const media = this.#media;
    if (!media) return;
    if (media.paused) media.play().catch(() => undefined);
    else media.pause();
  }

  pause(): void {
    this.#media?.pause();
  }

  seek(millis: number): void {
    const media = this.#media;
    if (!media) return;
    media.currentTime = Math.max(0, millis / 1000);
    this.store.set({ at: Math.max(0, Math.round(millis)), isPlaying: !media.paused });
  }

  #tell(): void {
    const media = this.#media;
    if (!media) return;
    const next = { at: Math.round(media.currentTime * 1000), isPlaying: !media.paused };
    const { at, isPlaying } = this.store.state;
    if (next.at !== at || next.isPlaying !== isPlaying) this.store.set(next);
  }

  #skip(): void {
    const media = this.#media;
    if (!media || this.#kept.length === 0) return;
    const at = media.currentTime * 1000;
    if (this.#kept.some(({ from, to }) => at >= from - 1 && at < to)) return;
    const next = this.#kept.find(({ from }) => from > at);
    if (next) media.currentTime = next.from / 1000;
    else media.pause();
  }
}

/** What follows from the moment that a film is at; drawn anew only where that changes. */
export function useMoment<T>(clock: Clock, of: (at: number, isPlaying: boolean) => T): T {
  return useSyncExternalStore(clock.store.subscribe, () => {
    const { at, isPlaying } = clock.store.state;
    return of(at, isPlaying);
  });
}

export function useClock(kept: readonly Span[]): Clock {
  const [clock] = useState(() => new Clock());
  useEffect(() => clock.keep(kept), [clock, kept]);
  return clock;
}
