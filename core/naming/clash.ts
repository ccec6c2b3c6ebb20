import { STEM_LIMIT } from './rule.ts';

/** The next free stem: itself when free, else with "-2", "-3" and so on, kept within 80 letters. */
export function nextFree(stem: string, isTaken: (stem: string) => boolean): string {
  if (!isTaken(stem)) return stem;
  for (let number = 2; ; number += 1) {
    const tail = `-${number}`;
    const offered = stem.slice(0, STEM_LIMIT - tail.length).replace(/-+$/, '') + tail;
    if (!isTaken(offered)) return offered;
  }
}

/**
 * The file name of a cut: the piece's stem, what was done to it where that must be told apart, its width. Two hyphens
 * set the stem apart, which holds none of them side by side (see `nameFault`): whatever two pieces are called, no cut of
 * one has the name of a cut of the other ("heron" cut to 3:2 and "heron-3x2").
 */
export function cutFileName(stem: string, variant: string, width: number, extension: string): string {
  return `${stem}--${[variant, String(width)].filter(Boolean).join('-')}.${extension}`;
}

/** What the cut of a name was called before the stem was set apart, under a stem that it went out with then. */
export function earlierCutFileName(stem: string, fileName: string): string {
  return `${stem}-${fileName.slice(fileName.indexOf('--') + 2)}`;
}
