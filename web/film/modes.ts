import type { TrackKind } from '#core/film/cue.ts';

/** What is worked on beside the film. */
export const MODES = ['captions', 'chapters', 'trim', 'transcript'] as const;
export type Mode = (typeof MODES)[number];
export const MODE_WORDS: Readonly<Record<Mode, string>> = {
  captions: 'Captions',
  chapters: 'Chapters',
  trim: 'Trim and still',
  transcript: 'Transcript',
};

/** The track that a mode works on. */
export const kindOf = (mode: Mode): TrackKind =>
  mode === 'chapters' || mode === 'transcript' ? mode : 'captions';
