/** Words in a row, the last after `and`: "cropped, mirrored and toned". */
export function listed(words: readonly string[], and: string): string {
  return words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} ${and} ${words.at(-1)}`;
}
