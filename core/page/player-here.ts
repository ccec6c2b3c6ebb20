import type { FilmFacts } from '../film/facts.ts';
import type { HouseRules } from './target.ts';

/**
 * Whether a target keeps the player of a film or a recording. Where its filter takes `video` or `audio` out, a picture of the film
 * leads to its file, which every browser plays by itself.
 */
export function playsHere(
  { sending }: Pick<HouseRules, 'sending'>,
  { picture }: Pick<FilmFacts, 'picture'>,
): boolean {
  const { dropped, unwrapped } = sending.filter;
  const player = picture === null ? 'audio' : 'video';
  return ![...dropped, ...unwrapped].includes(player);
}
