/**
 * Key words as a person types them: separated by commas, semicolons or line ends, each once, without blanks round them.
 * Upper and lower case are one word; the spelling that came first stays.
 */
export function readKeyWords(typed: string): readonly string[] {
  return withKeyWords(
    [],
    typed.split(/[,;\n]/).map((word) => word.trim().replace(/\s+/g, ' ')),
  );
}

/** Key words with others after them, each once. */
export function withKeyWords(words: readonly string[], more: readonly string[]): readonly string[] {
  const known = new Map<string, string>();
  for (const word of [...words, ...more]) {
    const key = word.toLocaleLowerCase();
    if (word !== '' && !known.has(key)) known.set(key, word);
  }
  return [...known.values()];
}

/** Key words without one of them, however that is spelt. */
export function withoutKeyWord(words: readonly string[], word: string): readonly string[] {
  return words.filter((one) => one.toLocaleLowerCase() !== word.toLocaleLowerCase());
}

/** Every key word of several pieces with how many of them have it, those of most pieces first. */
export function countKeyWords(
  each: readonly (readonly string[])[],
): readonly { readonly word: string; readonly pieces: number }[] {
  const counted = new Map<string, { word: string; pieces: number }>();
  for (const words of each)
    for (const word of withKeyWords([], words)) {
      const key = word.toLocaleLowerCase();
      const known = counted.get(key) ?? { word, pieces: 0 };
      counted.set(key, { ...known, pieces: known.pieces + 1 });
    }
  return [...counted.values()].sort((one, two) => two.pieces - one.pieces || (one.word < two.word ? -1 : 1));
}

const MOST_SAID = 6;

/** "heron, reed and 4 more". */
export function sayKeyWords(words: readonly string[]): string {
  const more = words.length - MOST_SAID;
  return `${words.slice(0, MOST_SAID).join(', ')}${more > 0 ? ` and ${more} more` : ''}`;
}
