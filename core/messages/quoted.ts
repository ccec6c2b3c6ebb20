type Marks = readonly [open: string, close: string];

/** Double marks of any language that quote something inside a title, with what they quote; apostrophes are no such marks. */
const INSIDE = /[“„"«»]([^“”„"«»]{1,300})[”“"«»]/gu;

/**
 * Quotes a title in the outer marks of a language, and what is quoted in it in the inner ones. A title that is quoted whole
 * already loses its own marks; the empty text stays empty.
 */
export function quotedWith([open, close]: Marks, [inOpen, inClose]: Marks): (title: string) => string {
  return (title) => {
    const said = title.trim();
    if (said === '') return '';
    const whole = /^[“„"«]([^“”„"«»]+)[”“"»]$/u.exec(said)?.[1];
    const inner = (whole ?? said).replace(INSIDE, (_, words: string) => `${inOpen}${words}${inClose}`);
    return `${open}${inner}${close}`;
  };
}
