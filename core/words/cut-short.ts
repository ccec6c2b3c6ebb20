/** How wide a text is, in px, as it would be drawn. */
export type Measure = (text: string) => number;

/** What is left of a text where it has to end: the words that are shown, and whether any are not. */
export interface CutShort {
  readonly shown: string;
  readonly isCut: boolean;
}

/**
 * A text in so many px altogether, as a listing cuts it: after the last whole word that has room with the dots behind it, or
 * within the first word where even that has none.
 */
export function cutShort(text: string, most: number, measure: Measure): CutShort {
  const whole = text.replace(/\s+/g, ' ').trim();
  if (measure(whole) <= most) return { shown: whole, isCut: false };
  const letters = [...whole];
  let [fits, over] = [0, letters.length];
  while (over - fits > 1) {
    const middle = Math.floor((fits + over) / 2);
    if (measure(`${letters.slice(0, middle).join('')} ...`) <= most) fits = middle;
    else over = middle;
  }
  const room = letters.slice(0, fits).join('');
  const isWordWhole = letters[fits] === ' ' || room.endsWith(' ');
  const words = isWordWhole ? room : room.slice(0, Math.max(room.lastIndexOf(' '), 0)) || room;
  return { shown: `${words.trimEnd()} ...`, isCut: true };
}
