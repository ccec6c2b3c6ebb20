/** Shorter words have too many neighbours for one of them to be meant. */
const LEAST_LETTERS = 4;
/** From so many letters on two slips are forgiven. */
const LONG_LETTERS = 8;

/** A word without accents and in small letters, as words are compared. */
export const foldWord = (word: string): string =>
  word
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase();

/**
 * The word that was meant by one that nobody uses: of those in use the one that is the fewest slips away (a letter too many,
 * missing or wrong, or two that changed places: the optimal string alignment distance), then the one used most, then the first
 * of the alphabet. One slip is forgiven, two in words of eight letters and more; null where none is near. `inUse` says how often
 * each folded word is used.
 */
export function nearWord(typed: string, inUse: ReadonlyMap<string, number>): string | null {
  const word = foldWord(typed);
  if (word.length < LEAST_LETTERS || /\d/u.test(word)) return null;
  const most = word.length >= LONG_LETTERS ? 2 : 1;
  let best: { readonly word: string; readonly slips: number; readonly uses: number } | null = null;
  for (const [other, uses] of inUse) {
    if (Math.abs(other.length - word.length) > most) continue;
    const slips = slipsBetween(word, other, best?.slips ?? most);
    if (slips === null || slips === 0) continue;
    const isNearer =
      best === null ||
      slips < best.slips ||
      (slips === best.slips && (uses > best.uses || (uses === best.uses && other < best.word)));
    if (isNearer) best = { word: other, slips, uses };
  }
  return best?.word ?? null;
}

/** How many slips lie between two words; null where they are more than `most`. */
function slipsBetween(one: string, other: string, most: number): number | null {
  let before: readonly number[] = [];
  let last: readonly number[] = Array.from({ length: other.length + 1 }, (_, at) => at);
  for (let row = 1; row <= one.length; row += 1) {
    const next = [row];
    for (let at = 1; at <= other.length; at += 1) {
      const isSame = one[row - 1] === other[at - 1];
      const isSwapped = row > 1 && at > 1 && one[row - 1] === other[at - 2] && one[row - 2] === other[at - 1];
      next[at] = Math.min(
        (last[at] ?? 0) + 1,
        (next[at - 1] ?? 0) + 1,
        (last[at - 1] ?? 0) + (isSame ? 0 : 1),
        isSwapped ? (before[at - 2] ?? 0) + 1 : Number.POSITIVE_INFINITY,
      );
    }
    if (Math.min(...next) > most) return null;
    before = last;
    last = next;
  }
  const slips = last[other.length] ?? 0;
  return slips > most ? null : slips;
}
