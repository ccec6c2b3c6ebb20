/**
 * How else readers get a page than as usual: on a dark device, with all text twice as large (WCAG 2.2, 1.4.4), with wide spaces
 * (1.4.12), with motion reduced, without its pictures, without scripts, on paper.
 */
export const SEEN_AS = [
  'usual',
  'dark',
  'large',
  'spaced',
  'still',
  'no-pictures',
  'no-script',
  'printed',
] as const;
export type SeenAs = (typeof SEEN_AS)[number];

export const SEEN_AS_WORDS: Readonly<Record<SeenAs, string>> = {
  usual: 'as usual',
  dark: 'dark',
  large: 'text at 200 %',
  spaced: 'text spaced out',
  still: 'motion reduced',
  'no-pictures': 'no pictures',
  'no-script': 'no script',
  printed: 'printed',
};

const isSeenAs = (text: unknown): text is SeenAs => SEEN_AS.some((one) => one === text);

/** What an address asks for; as usual where it asks for nothing that there is. */
export const readSeenAs = (text: unknown): SeenAs => (isSeenAs(text) ? text : 'usual');

/** The width of a sheet of A4 in px of CSS (210 mm at 96 to the inch; CSS Values 4, 5.2). */
const PAPER_PX = 794;

/** The window in px that a page is laid out for: enlarged to 200 % half of it is left (WCAG 2.2, 1.4.10). */
export function viewportAs(seen: SeenAs, viewport: number): number {
  if (seen === 'large') return Math.round(viewport / 2);
  return seen === 'printed' ? PAPER_PX : viewport;
}

/** A distance between lines, letters, words and paragraphs that has to harm nothing (WCAG 2.2, 1.4.12). */
const SPACED = `
.placard * { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; }
.placard p { margin-bottom: 2em !important; }
`;

/** As a device that asks for it gets it (Media Queries 5, 11.1): what moves only where motion is welcome does not. */
const MOTION = '@media (prefers-reduced-motion: no-preference)';
const STILL = `
.placard *, .placard { animation: none !important; transition: none !important; scroll-behavior: auto !important; }
`;

const PRINT = '@media print';
const DARK = '@media screen and (prefers-color-scheme: dark)';

/** The style sheet of a page, our own, as it holds where the page is seen like this: what is asked of the device is answered in it. */
export function styleSeenAs(seen: SeenAs, css: string): string {
  switch (seen) {
    case 'dark':
      return css.replaceAll(DARK, '@media all');
    case 'printed':
      return css.replaceAll(PRINT, '@media all').replaceAll(DARK, '@media not all');
    case 'still':
      return `${css.replaceAll(MOTION, '@media not all')}${STILL}`;
    case 'spaced':
      return `${css}${SPACED}`;
    default:
      return css;
  }
}

/** Pictures of these blocks have not come yet: the room that they take is there, and nothing in it. */
export function withoutPicturesOf(blocks: readonly string[]): string {
  const of = blocks.map((id) => `[data-block="${id}"] img`).join(', ');
  return of === '' ? '' : `${of} { visibility: hidden !important; }\n`;
}

/** IDs of blocks as they stand in an address, parted by dots; what is no ID is passed over. */
export function readLate(text: unknown): readonly string[] {
  return typeof text === 'string'
    ? text
        .split('.')
        .filter((id) => /^[\w-]{1,64}$/.test(id))
        .slice(0, MOST_LATE)
    : [];
}

const MOST_LATE = 500;
