import type { FilmFacts } from './facts.ts';

/** A film that every browser plays as it came, of a minute and twelve seconds. */
export const A_FILM: FilmFacts = {
  format: 'mp4',
  bytes: 2_000_000,
  seconds: 72,
  picture: { width: 1920, height: 1080, rate: 25, codec: 'h264', isHdr: false },
  sound: { codec: 'aac', channels: 2 },
  inside: [],
};
