/** Shorter words say too little without their ending. */
const LEAST_LETTERS = 4;

/** Endings of English words, the longest first, each with what is left in its place: what begins so is looked for. */
const ENDINGS: readonly (readonly [ending: RegExp, left: string])[] = [
  [/(?<=[a-z]{3})ies$/i, ''],
  [/(?<=(?:ch|sh|ss|x|z))es$/i, ''],
  [/(?<=[a-z]{2}[a-rt-z])s$/i, ''],
  [/(?<=[a-z]{3})['’]s?$/i, ''],
  [/(?<=[a-z]{3}[b-df-hj-np-tv-z])y$/i, ''],
];

/**
 * What a word is looked up by, as the beginning of others: without the ending of its plural, so that "herons" finds "heron", and
 * "berry" finds "berries". What is no English word is looked up as it stands.
 */
export function wordStem(word: string): string {
  if (word.length < LEAST_LETTERS) return word;
  const [ending, left] = ENDINGS.find(([one]) => one.test(word)) ?? [];
  return ending === undefined || left === undefined ? word : word.replace(ending, left);
}
