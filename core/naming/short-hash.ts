/**
 * A few letters that stand for a text in a name: the same text has the same, and another almost never (FNV-1a, 32 bits,
 * in base 36). Not for anything that must not be guessed.
 */
export function shortHash(text: string): string {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  return hash.toString(36);
}
