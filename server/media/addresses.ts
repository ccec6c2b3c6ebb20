import type { Context } from '../context.ts';

export const thumbPath = (assetId: string, recipe: string, width: number) =>
  `/thumb/${assetId}/${recipe}/${width}.webp`;

/** A far picture to be looked at before it is taken; `text` says which. */
export const farPath = (text: string) => `/far/${text}`;

export const cutPath = (assetId: string, recipe: string, width: number, quality: number, fileName: string) =>
  `/cut/${assetId}/${recipe}/${width}/${quality}/${fileName}`;

/** The part of a cut round a place, given in fractions, at the cut's own pixels. */
export const detailPath = (
  assetId: string,
  recipe: string,
  width: number,
  quality: number,
  { x, y, file }: { readonly x: number; readonly y: number; readonly file: string },
) => `/detail/${assetId}/${recipe}/${width}/${quality}/${x.toFixed(4)}/${y.toFixed(4)}/${file}`;

/** The own file of a document, to be downloaded. */
export const filePath = (assetId: string, fileName: string) => `/file/${assetId}/${fileName}`;

export const pagePath = (pageId: string, version: number) => `/page/${pageId}/${version}/`;

/** A page as a listing shows it. */
export const listingPath = (pageId: string, version: number) => `/listing/${pageId}/${version}/`;

/** What an address opens: a thing that is held, one that was thrown away, or what is only looked at now. */
export type Opening = 'held' | 'thrown-away' | 'look';

const HOUR_MILLIS = 60 * 60 * 1000;
const DAY_MILLIS = 24 * HOUR_MILLIS;
/**
 * How long an address opens at least, and at most twice as long: it ends at a full one of these, so that it is the same
 * address for a while and browsers need not fetch the same picture anew at each look.
 */
const OPEN_MILLIS: Readonly<Record<Opening, number>> = {
  held: 7 * DAY_MILLIS,
  'thrown-away': DAY_MILLIS,
  look: 12 * HOUR_MILLIS,
};

type Signing = Pick<Context, 'config' | 'signatures'>;

/** A whole address on the media origin that nobody can make up, and that ends. */
export function signedAddress(
  { config, signatures }: Signing,
  path: string,
  opening: Opening = 'held',
  now = Date.now(),
): string {
  const span = OPEN_MILLIS[opening];
  const until = ((Math.floor(now / span) + 2) * span).toString(36);
  const signature = signatures.sign(textOf(path, opening, until));
  return `${config.mediaOrigin}${path}?s=${signature}&u=${until}${opening === 'held' ? '' : `&o=${opening}`}`;
}

/** What the address of a request opens; undefined for one that was made up, or has ended. */
export function openingOf(
  { signatures }: Pick<Signing, 'signatures'>,
  path: string,
  query: Readonly<Record<string, unknown>>,
  now = Date.now(),
): Opening | undefined {
  const { s, u, o = 'held' } = query;
  if (typeof s !== 'string' || typeof u !== 'string' || !/^[a-z0-9]{1,11}$/.test(u) || !isOpening(o))
    return undefined;
  const isOpen = signatures.isSigned(textOf(path, o, u), s) && Number.parseInt(u, 36) > now;
  return isOpen ? o : undefined;
}

const textOf = (path: string, opening: Opening, until: string) => `${opening} ${until} ${path}`;

const isOpening = (text: unknown): text is Opening =>
  typeof text === 'string' && Object.hasOwn(OPEN_MILLIS, text);
