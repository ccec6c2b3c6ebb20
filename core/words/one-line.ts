/**
 * Marks that turn the direction of what follows (Unicode, UAX 9: embeddings, overrides, isolates and marks), by which a
 * name can be shown as another, and controls. In a title from elsewhere they say nothing.
 */
const HIDDEN = /[\u061c\u200e\u200f\u202a-\u202e\u2066-\u2069]|(?![\t\n\r])\p{Cc}/gu;

/** A text from elsewhere as one line that is shown as it is written: no hidden marks, single blanks, at most `most` letters. */
export function oneLine(text: string, most = 300): string {
  const line = text
    .slice(0, 20 * most)
    .replace(HIDDEN, '')
    .replace(/\s+/gu, ' ')
    .trim();
  // Not through the middle of a letter that takes two units.
  return line
    .slice(0, most)
    .replace(/[\ud800-\udbff]$/u, '')
    .trim();
}
