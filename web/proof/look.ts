import { readSeenAs, type SeenAs } from '#core/proof/seen-as.ts';

/** What of a page is looked at. */
export const LOOKED_AT = ['page', 'listing', 'words', 'slow', 'out'] as const;
export type LookedAt = (typeof LOOKED_AT)[number];

export const LOOKED_AT_WORDS: Readonly<Record<LookedAt, string>> = {
  page: 'the page at its widths',
  listing: 'listing and article',
  words: 'as it is heard',
  slow: 'on a slow line',
  out: 'beside what is out',
};

/** How sharp the reader's screen is: as this one, or as many pixels of it as make one px of CSS. */
export const SCREENS = ['here', '1', '2', '3'] as const;
export type Screen = (typeof SCREENS)[number];

/** Widths at which anybody reads: a watch is left out, a wall of screens too. */
export const LEAST_WIDTH_PX = 240;
export const MOST_WIDTH_PX = 3840;

/** How a proof is looked at, as it stands in the address of the screen. */
export interface Look {
  readonly at: LookedAt;
  readonly as: SeenAs;
  /** One width in px alone; null for those of the target. */
  readonly width: number | null;
  readonly screen: Screen;
}

export function readLook(params: URLSearchParams): Look {
  const [at, screen] = [params.get('with'), params.get('screen')];
  const width = Number(params.get('width') ?? 0);
  return {
    at: LOOKED_AT.find((one) => one === at) ?? 'page',
    as: readSeenAs(params.get('as')),
    width: isWidth(width) ? width : null,
    screen: SCREENS.find((one) => one === screen) ?? 'here',
  };
}

export const isWidth = (width: number): boolean =>
  Number.isInteger(width) && width >= LEAST_WIDTH_PX && width <= MOST_WIDTH_PX;

/** What is as usual is not said. */
export function writeLook({ at, as, width, screen }: Look): Record<string, string> {
  return {
    ...(at === 'page' ? {} : { with: at }),
    ...(as === 'usual' ? {} : { as }),
    ...(width === null ? {} : { width: String(width) }),
    ...(screen === 'here' ? {} : { screen }),
  };
}

/** How many times as sharp as this screen that of the reader is. */
export const timesAsSharp = (screen: Screen): number =>
  screen === 'here' ? 1 : Number(screen) / window.devicePixelRatio;

/** The height in px of the window that is usual at a width: a phone, a tablet, a desk. */
export function heightOf(width: number): number {
  if (width <= 500) return 844;
  return width <= 1000 ? 1112 : 800;
}
